"""What can be done in a workshop: use cases over the store and the core, without a web server.

Routes, jobs, the demo and the command line all call these. A function takes an open session; what it changes is kept when
the session's own block is left.
"""
