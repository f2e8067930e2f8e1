/** What is said of every test: for screens and prints that may speak of any. */
import './ac'
import './curve'
import './fault'
