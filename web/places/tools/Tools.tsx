import { Page } from '../../parts/Page.tsx';
export function Tools() {
  return <Page title="Quick tools" tab="Quick tools">{null}</Page>;
}
