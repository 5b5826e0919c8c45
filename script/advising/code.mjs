/** One of a list, drawn. */
export const oneOf = (random, list) => list[Math.floor(random() * list.length)];

const WORDS =
  'rope tide keel mast harbour lantern buoy anchor ledger crate berth gull pilot chart mooring winch deck hold cargo manifest ballast rudder sextant fathom knot squall current beacon jetty shoal'.split(
    ' ',
  );

/** Code of about so many bytes that compresses as code does: functions that call each other, and one that calls them all. */
export function bulk(random, bytes, name) {
  const lines = [];
  let size = 0;
  for (let n = 0; size < bytes; n++) {
    const [a, b, c] = [oneOf(random, WORDS), oneOf(random, WORDS), oneOf(random, WORDS)];
    const text = `function ${name}${n}(${a}, count) {
  const ${b}List = ['${c} ${Math.floor(random() * 9999)}', '${oneOf(random, WORDS)}-${oneOf(random, WORDS)}', ${Math.floor(random() * 99999)}];
  if (count > ${Math.floor(random() * 90)}) return ${b}List.concat(${a}.map((item) => item.${c} + ${Math.floor(random() * 900)}));
  return { ${a}, ${b}: ${b}List, ${oneOf(random, WORDS)}${n}: ${a}.length * ${Math.floor(random() * 700)} };
}`;
    size += text.length * 0.75;
    lines.push(text);
  }
  const calls = lines.map((_, n) => `${name}${n}(list, ${n})`).join(', ');
  return `${lines.join('\n')}\nexport function ${name}(list) {\n  return [${calls}];\n}\n`;
}
