import { randomBytes } from 'node:crypto';
import type { RequestHandler } from 'express';
import helmet from 'helmet';

/** Gives each answer a nonce for its style elements. */
export function nonce(): RequestHandler {
  return (_req, res, next) => {
    res.locals.nonce = randomBytes(16).toString('base64');
    next();
  };
}

/**
 * The content security policy and its kin. Styles made at run time (Emotion, CodeMirror) carry the
 * nonce; `wasm-unsafe-eval` is for the integer-program solver alone.
 */
export function policy(): RequestHandler {
  return helmet({
    contentSecurityPolicy: {
      useDefaults: false,
      directives: {
        'default-src': ["'none'"],
        'script-src': ["'self'", "'wasm-unsafe-eval'"],
        'style-src': [
          "'self'",
          (_req, res) => `'nonce-${(res as unknown as { locals: { nonce: string } }).locals.nonce}'`,
        ],
        'img-src': ["'self'", 'data:'],
        'font-src': ["'self'"],
        'connect-src': ["'self'"],
        'worker-src': ["'self'"],
        'manifest-src': ["'self'"],
        'base-uri': ["'none'"],
        'form-action': ["'none'"],
        'frame-ancestors': ["'none'"],
        'object-src': ["'none'"],
      },
    },
    crossOriginOpenerPolicy: { policy: 'same-origin' },
    crossOriginEmbedderPolicy: { policy: 'require-corp' },
    crossOriginResourcePolicy: { policy: 'same-origin' },
    referrerPolicy: { policy: 'no-referrer' },
    strictTransportSecurity: false,
  });
}
