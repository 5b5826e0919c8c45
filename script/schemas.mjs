import fs from 'node:fs';
import { SCHEMA_NAMES, schemaFile, schemaText } from '../dist/core/formats/schemas.js';

/** Writes the published schemas into docs/schema, from what the program itself checks by. Build first: npm run build:node. */
for (const name of SCHEMA_NAMES) fs.writeFileSync(`docs/schema/${schemaFile(name)}`, schemaText(name));
