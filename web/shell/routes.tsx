import type { ComponentType } from 'react';
import { createBrowserRouter, useParams } from 'react-router';
import { Frame } from './Frame.tsx';
import { Broken, Failed, NotFound } from './NotFound.tsx';

/** Another record is another place: nothing typed, opened or chosen at one is carried over to the next. */
const ofOneRecord = (Place: ComponentType) =>
  function OfOneRecord() {
    return <Place key={JSON.stringify(useParams())} />;
  };

// Each place is a part of its own: who stands at the cup waits for nothing that Today alone needs.
const lazy =
  <M extends object, K extends keyof M>(load: () => Promise<M>, name: K) =>
  async () => {
    const part = (await load()) as M | undefined;
    // Of an older build: the page is being loaded anew (see upgrade.ts), and nothing is drawn until then.
    return part ? { Component: ofOneRecord(part[name] as ComponentType) } : new Promise<never>(() => {});
  };

const masters = () => import('../places/masters/Masters.tsx');
const master = () => import('../places/masters/MasterPage.tsx');
const shape = () => import('../places/shape/ShapeBench.tsx');
const molds = () => import('../places/molds/Molds.tsx');
const planner = () => import('../places/silicone/Planner.tsx');
const colours = () => import('../places/colours/Colours.tsx');
const colour = () => import('../places/colours/ColourPage.tsx');
const dosing = () => import('../places/colours/Dosing.tsx');
const pours = () => import('../places/pours/Pours.tsx');
const orders = () => import('../places/orders/Orders.tsx');

export const makeRouter = () =>
  createBrowserRouter([
    {
      element: <Frame />,
      errorElement: <Broken />,
      children: [
        {
          errorElement: <Failed />,
          children: [
            { path: '/', lazy: lazy(() => import('../places/today/Today.tsx'), 'TodayPlace') },
            { path: '/masters', lazy: lazy(masters, 'Masters') },
            { path: '/masters/new', lazy: lazy(() => import('../places/masters/NewMaster.tsx'), 'NewMaster') },
            { path: '/masters/sculpt', lazy: lazy(shape, 'NewShape') },
            { path: '/masters/:id', lazy: lazy(master, 'MasterPage') },
            { path: '/masters/:id/shape', lazy: lazy(shape, 'ShapeBench') },
            { path: '/masters/:id/compare', lazy: lazy(() => import('../places/shape/Compare.tsx'), 'Compare') },
            { path: '/masters/:id/water', lazy: lazy(() => import('../places/water/WaterTests.tsx'), 'WaterTests') },
            { path: '/ladders', lazy: lazy(() => import('../places/water/Ladders.tsx'), 'Ladders') },
            { path: '/ladders/:id', lazy: lazy(() => import('../places/water/LadderPage.tsx'), 'LadderPage') },
            { path: '/molds', lazy: lazy(molds, 'Molds') },
            { path: '/molds/new', lazy: lazy(() => import('../places/molds/NewMold.tsx'), 'NewMold') },
            { path: '/molds/plan', lazy: lazy(planner, 'Planner') },
            { path: '/molds/build', lazy: lazy(() => import('../places/builder/Builder.tsx'), 'Builder') },
            { path: '/molds/:id', lazy: lazy(() => import('../places/molds/MoldPage.tsx'), 'MoldPage') },
            { path: '/colours', lazy: lazy(colours, 'Colours') },
            { path: '/colours/new', lazy: lazy(() => import('../places/colours/RecipeEditor.tsx'), 'NewRecipe') },
            { path: '/colours/dosing', lazy: lazy(dosing, 'DosingStart') },
            { path: '/colours/dosing/:id', lazy: lazy(dosing, 'DosingBench') },
            { path: '/store/:id/measure', lazy: lazy(() => import('../places/store/Measure.tsx'), 'Measure') },
            { path: '/colours/travel', lazy: lazy(() => import('../places/colours/Travel.tsx'), 'Travel') },
            { path: '/colours/match', lazy: lazy(() => import('../places/colours/Match.tsx'), 'Match') },
            { path: '/colours/layers', lazy: lazy(() => import('../places/colours/LayersEditor.tsx'), 'NewLayers') },
            {
              path: '/colours/:id/layers',
              lazy: lazy(() => import('../places/colours/LayersEditor.tsx'), 'EditLayers'),
            },
            { path: '/colours/:id', lazy: lazy(colour, 'ColourPage') },
            { path: '/colours/:id/edit', lazy: lazy(() => import('../places/colours/RecipeEditor.tsx'), 'EditRecipe') },
            { path: '/pours', lazy: lazy(pours, 'Pours') },
            { path: '/pours/new', lazy: lazy(() => import('../places/pours/NewPour.tsx'), 'NewPour') },
            { path: '/pours/:id', lazy: lazy(() => import('../places/pours/PourSheet.tsx'), 'PourSheet') },
            { path: '/pours/:id/evening', lazy: lazy(() => import('../places/pours/EveningPage.tsx'), 'EveningPage') },
            { path: '/pours/:id/bench', lazy: lazy(() => import('../places/pours/Bench.tsx'), 'Bench') },
            { path: '/dry-run', lazy: lazy(() => import('../places/pours/DryRun.tsx'), 'DryRuns') },
            { path: '/dry-run/:lesson', lazy: lazy(() => import('../places/pours/DryRun.tsx'), 'DryRun') },
            { path: '/rack', lazy: lazy(() => import('../places/rack/Rack.tsx'), 'RackPlace') },
            { path: '/rack/bins/:id', lazy: lazy(() => import('../places/rack/KnowScraps.tsx'), 'KnowScraps') },
            { path: '/bags/:code', lazy: lazy(() => import('../places/rack/BagPage.tsx'), 'BagPage') },
            { path: '/orders', lazy: lazy(orders, 'Orders') },
            { path: '/orders/new', lazy: lazy(() => import('../places/orders/NewOrder.tsx'), 'NewOrder') },
            { path: '/customers', lazy: lazy(() => import('../places/customers/Customers.tsx'), 'Customers') },
            {
              path: '/customers/:id',
              lazy: lazy(() => import('../places/customers/CustomerPage.tsx'), 'CustomerPage'),
            },
            { path: '/orders/cost', lazy: lazy(() => import('../places/orders/CostPage.tsx'), 'CostPage') },
            { path: '/orders/import', lazy: lazy(() => import('../places/orders/ImportPage.tsx'), 'ImportPage') },
            { path: '/orders/money', lazy: lazy(() => import('../places/orders/MoneyPage.tsx'), 'MoneyPage') },
            { path: '/orders/season', lazy: lazy(() => import('../places/season/SeasonPage.tsx'), 'SeasonPage') },
            { path: '/orders/plan', lazy: lazy(() => import('../places/plan/PlanPage.tsx'), 'PlanPage') },
            { path: '/orders/:id', lazy: lazy(() => import('../places/orders/OrderPage.tsx'), 'OrderPage') },
            {
              path: '/orders/:id/packing',
              lazy: lazy(() => import('../places/packing/PackingPage.tsx'), 'PackingPage'),
            },
            { path: '/store', lazy: lazy(() => import('../places/store/Store.tsx'), 'Store') },
            { path: '/insight', lazy: lazy(() => import('../places/insight/Insight.tsx'), 'Insight') },
            { path: '/tools', lazy: lazy(() => import('../places/tools/Tools.tsx'), 'Tools') },
            { path: '/tools/:name', lazy: lazy(() => import('../places/tools/ToolPage.tsx'), 'ToolPage') },
            { path: '/guide', lazy: lazy(() => import('../places/guide/Guide.tsx'), 'Guide') },
            { path: '/settings', lazy: lazy(() => import('../places/settings/Settings.tsx'), 'Settings') },
            { path: '*', element: <NotFound /> },
          ],
        },
      ],
    },
  ]);
