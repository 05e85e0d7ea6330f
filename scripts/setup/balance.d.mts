export function balance(
  host: string,
  port: number,
  copies: readonly number[],
): Promise<{ close(): Promise<void> }>;
