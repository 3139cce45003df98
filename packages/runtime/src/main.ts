/** In a handed-over page it runs once. */
import { settings } from './page.ts'
import { foresee } from './parts/shrinks.ts'
import { start } from './script.ts'

foresee(settings)
if (document.readyState === 'loading') addEventListener('DOMContentLoaded', start)
else start()
