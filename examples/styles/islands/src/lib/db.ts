import fs from 'node:fs';
export const rows = () => fs.readdirSync('.');
