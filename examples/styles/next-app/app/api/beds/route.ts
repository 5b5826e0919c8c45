export const GET = () => new Response('[]');
