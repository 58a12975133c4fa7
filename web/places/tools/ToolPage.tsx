import { Page } from '../../parts/Page.tsx';
export function ToolPage() {
  return <Page title="Tool" tab="Tool">{null}</Page>;
}
