import { Router } from 'express';
import { mount } from '../../http/mount.js';
import { Refusal } from '../../problem.js';
import { quotePdf } from './quote-pdf.js';
import type { QuotesService } from './quotes.service.js';

export function quotesRoutes(quotes: QuotesService): Router {
  const router = Router();
  mount(router, 'quotePrices', async ({ params }) => [...(await quotes.open(params.quoteId)).prices]);
  mount(router, 'acceptQuote', ({ params, body }) => quotes.accept(params.quoteId, body.filmId, body));
  mount(router, 'quotePdf', async ({ params, query }) => {
    const open = await quotes.open(params.quoteId);
    if (open.prices.every((p) => p.fault !== null)) throw new Refusal('no-price', open.prices[0]?.fault ?? 'Choose a film first.');
    return { name: `quote ${open.quote.customer}.pdf`, bytes: await quotePdf(open, query.paper) };
  });
  return router;
}
