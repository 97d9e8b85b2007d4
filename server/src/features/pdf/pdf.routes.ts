/** The sheet as a file: pages come as SVG, as the browser has laid them out, and go as a PDF. */
import { json, Router } from 'express';
import { pdfRequestSchema, ROUTES } from '@wild-needle/contract';
import { InvalidRequestError } from '../../http/errors';
import { parse } from '../../http/parse';
import { makePdf } from './make-pdf';

const MAX_PAGES = '64mb';

export function pdfRoutes(): Router {
  const router = Router();
  router.post(ROUTES.makePdf.path, json({ limit: MAX_PAGES }), async (request, response) => {
    const pages = parse(pdfRequestSchema, request.body);
    const pdf = await makePdf(pages).catch((error: unknown) => {
      throw error instanceof RangeError
        ? new InvalidRequestError([{ path: 'pages', message: error.message }])
        : error;
    });
    response.type('application/pdf').send(pdf);
  });
  return router;
}
