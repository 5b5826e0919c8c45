/**
 * Headers that every answer carries. Scripts run only from this server, and inline ones only with the nonce of the answer; no
 * other site may frame the page, and nothing is fetched from elsewhere. Styles may be inline: positions are set so. Without a
 * nonce, those of data: nothing in it may run or be fetched.
 */
export function securityHeaders(nonce: string | null): Record<string, string> {
  const data = ["default-src 'none'", "frame-ancestors 'none'"];
  const page = [
    "default-src 'none'",
    `script-src 'self' 'nonce-${nonce}'`,
    "style-src 'self' 'unsafe-inline'",
    "img-src 'self' data: blob:",
    "font-src 'self'",
    "connect-src 'self'",
    "worker-src 'self'",
    "manifest-src 'self'",
    "base-uri 'none'",
    "form-action 'self'",
    "frame-ancestors 'none'",
  ];
  return {
    'content-security-policy': (nonce === null ? data : page).join('; '),
    'x-content-type-options': 'nosniff',
    'x-frame-options': 'DENY',
    'referrer-policy': 'no-referrer',
    'cross-origin-opener-policy': 'same-origin',
    'cross-origin-resource-policy': 'same-origin',
    'permissions-policy': 'camera=(), geolocation=(), microphone=(), payment=()',
  };
}
