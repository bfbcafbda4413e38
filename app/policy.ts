import { z } from 'zod';

// The page's security policy lets nothing be compiled from text; without this the schema library would try.
// A module of its own, and the first to be imported, so that it is said before any schema is made.
z.config({ jitless: true });
