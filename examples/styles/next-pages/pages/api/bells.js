export default (req, res) => res.json([]);
