/** In a handed-over page it runs once. */
import { start } from './script.ts'

if (document.readyState === 'loading') addEventListener('DOMContentLoaded', start)
else start()
