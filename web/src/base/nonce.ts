/** The nonce of this page's content security policy; imported first, because style libraries read it at load. */
declare global {
  interface Window {
    __nonce__?: string;
  }
}
const content = document.querySelector('meta[name="csp-nonce"]')?.getAttribute('content');
export const nonce: string | undefined = content != null && !content.startsWith('__') ? content : undefined;
if (nonce !== undefined) window.__nonce__ = nonce;
