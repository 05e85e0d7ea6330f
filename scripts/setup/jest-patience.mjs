/** How long one test may take before it counts as stuck; a test waits for what it means, never for a time. */
import { jest } from '@jest/globals';

jest.setTimeout(120_000);
