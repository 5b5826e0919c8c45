const HOURS = ['12–5', '9–6', '9–6', 'closed', '9–6', '9–8', '10–4'];

export const OpenToday = () => <p>Today {HOURS[new Date().getDay()]}</p>;
