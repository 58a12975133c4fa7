import { awayEndpoints } from './away/routes.ts';
import { binEndpoints } from './bins/routes.ts';
import { clockEndpoints } from './clocks/routes.ts';
import { colourwayEndpoints } from './colourways/routes.ts';
import { customerEndpoints } from './customers/routes.ts';
import type { Endpoint } from './http/endpoint.ts';
import { insightEndpoints } from './insight/routes.ts';
import { instrumentEndpoints } from './instruments/routes.ts';
import { keptEndpoints } from './kept/routes.ts';
import { ledgerEndpoints } from './ledgers/routes.ts';
import { lookEndpoints } from './looks/routes.ts';
import { masterEndpoints } from './masters/routes.ts';
import { materialEndpoints } from './materials/routes.ts';
import { moldEndpoints } from './molds/routes.ts';
import { moneyEndpoints } from './money/routes.ts';
import { orderEndpoints } from './orders/routes.ts';
import { planEndpoints } from './plan/routes.ts';
import { pourEndpoints } from './pours/routes.ts';
import { recipeEndpoints } from './recipes/routes.ts';
import { seasonEndpoints } from './season/routes.ts';
import { complaintEndpoints } from './stock/complaintRoutes.ts';
import { stockEndpoints } from './stock/routes.ts';
import { tasteEndpoints } from './tastes/routes.ts';
import { todayEndpoints } from './today/routes.ts';
import { undoEndpoints } from './undo/routes.ts';
import { waterEndpoints } from './water/routes.ts';
import { workshopEndpoints } from './workshop/routes.ts';

/** Every resource, in the order of the work. */
export const endpoints: Endpoint[] = [
  ...workshopEndpoints,
  ...masterEndpoints,
  ...waterEndpoints,
  ...moldEndpoints,
  ...materialEndpoints,
  ...recipeEndpoints,
  ...colourwayEndpoints,
  ...binEndpoints,
  ...ledgerEndpoints,
  ...lookEndpoints,
  ...pourEndpoints,
  ...stockEndpoints,
  ...orderEndpoints,
  ...moneyEndpoints,
  ...seasonEndpoints,
  ...customerEndpoints,
  ...complaintEndpoints,
  ...planEndpoints,
  ...tasteEndpoints,
  ...clockEndpoints,
  ...instrumentEndpoints,
  ...undoEndpoints,
  ...keptEndpoints,
  ...awayEndpoints,
  ...insightEndpoints,
  ...todayEndpoints,
];
