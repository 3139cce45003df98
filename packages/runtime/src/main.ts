/** In a handed-over page it runs once. */
import { start } from './script.ts'
import { putBack } from './parts/header.ts'

putBack()
if (document.readyState === 'loading') addEventListener('DOMContentLoaded', start)
else start()
