/** Runs once in a handed-over page. */
import { start } from './script.ts'
import { putBack } from './parts/header.ts'

putBack()
if (document.readyState === 'loading') addEventListener('DOMContentLoaded', start)
else start()
