/** Control characters, ends of lines and paragraphs, and those that turn the direction of writing. */
const UNSEEN = /[\p{Cc}\u2028\u2029\u202a-\u202e\u2066-\u2069]/gu;

/** A text from outside as one line in which everything can be seen: no name ends a line or hides what stands beside it. */
export function oneLine(text: string): string {
  return text.replace(/[\t\r\n]+/g, ' ').replace(UNSEEN, '\ufffd');
}

/**
 * An address as it may stand in a header field (RFC 8288) or an attribute. Only that is percent-encoded which a browser encodes
 * everywhere in an address (URL Standard, query percent-encode set), so that it stays the address that the page asks for.
 */
export function plainAddress(address: string): string {
  return address.replace(/[^!#-;=?-~]/gu, (c) => encodeURIComponent(/\p{Cs}/u.test(c) ? '\ufffd' : c));
}
