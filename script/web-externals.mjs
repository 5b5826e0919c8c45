import fs from 'node:fs';

/**
 * The web build asks for packages that it doesn't take in by names of its own, which are links beside it. Packages of the registry hold no links:
 * so they are written down, and made again where the program is installed (`yokeline open`).
 */
const folder = '.next/node_modules';
const links = fs.existsSync(folder) ? fs.readdirSync(folder) : [];
const named = links.flatMap((alias) => {
  const at = /^(.*)node_modules\/(.+)$/.exec(fs.readlinkSync(`${folder}/${alias}`));
  return at ? [[alias, at[2]]] : [];
});
fs.writeFileSync('.next/externals.json', `${JSON.stringify(Object.fromEntries(named), null, 1)}\n`);
