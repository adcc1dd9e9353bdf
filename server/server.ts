import { fileURLToPath } from 'node:url';
import express, { type Express } from 'express';
import helmet from 'helmet';

const dist = fileURLToPath(new URL('../dist', import.meta.url));

/** Serves the built application. Nothing that a person brings in ever reaches this server: it only hands out files. */
export function makeServer(root = dist): Express {
  const app = express();
  app.disable('x-powered-by');
  app.use(
    helmet({
      contentSecurityPolicy: {
        useDefaults: false,
        directives: {
          defaultSrc: ["'self'"],
          scriptSrc: ["'self'", "'wasm-unsafe-eval'"],
          // Element Plus places its floating parts by style attributes.
          styleSrc: ["'self'", "'unsafe-inline'"],
          imgSrc: ["'self'", 'blob:', 'data:'],
          fontSrc: ["'self'", 'data:'],
          connectSrc: ["'self'"],
          workerSrc: ["'self'", 'blob:'],
          objectSrc: ["'none'"],
          baseUri: ["'none'"],
          formAction: ["'none'"],
          frameAncestors: ["'none'"],
        },
      },
      strictTransportSecurity: false,
      crossOriginEmbedderPolicy: false,
    }),
  );
  // The polygon library builds its calls from text when it starts. It runs in the engine's worker alone, which sees no page and takes no text as code; its own answer says that it may.
  app.use('/assets', (request, response, next) => {
    const policy = response.getHeader('Content-Security-Policy');
    if (/^\/worker-[\w-]+\.js$/.test(request.path) && typeof policy === 'string') response.setHeader('Content-Security-Policy', policy.replace("'wasm-unsafe-eval'", "'wasm-unsafe-eval' 'unsafe-eval'"));
    next();
  });
  app.use('/assets', express.static(`${root}/assets`, { immutable: true, maxAge: '1y', fallthrough: false }));
  app.use(express.static(root, { index: 'index.html', maxAge: 0 }));
  app.use('/demo', (_request, response) => void response.status(404).type('text').send('no such demo file'));
  app.get('/{*splat}', (_request, response) => response.sendFile('index.html', { root }));
  return app;
}
