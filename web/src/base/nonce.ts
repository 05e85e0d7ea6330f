/** The nonce of this page's content security policy, for the library that writes its styles. */
const content = document.querySelector('meta[name="csp-nonce"]')?.getAttribute('content');
export const nonce: string | undefined = content != null && !content.startsWith('__') ? content : undefined;
