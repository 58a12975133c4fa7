import { Page } from '../../parts/Page.tsx';
export function Insight() {
  return <Page title="Insight" tab="Insight">{null}</Page>;
}
