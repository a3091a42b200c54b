#!/bin/sh
# The shell opens no page by itself, and the driver waits for one.
exec /usr/lib/chromium/chromium-headless-shell "$@" about:blank
