/** In a handed-over page it runs once. */
import { start } from './script.ts'
import { foresee } from './parts/header.ts'

foresee()
if (document.readyState === 'loading') addEventListener('DOMContentLoaded', start)
else start()
