#!/usr/bin/env bash
# keep.sh NAME COMMAND…: runs a command again whenever it ends.
shift
trap 'exit 0' TERM INT
while :; do
  "$@" &
  wait $!
  sleep 2
done
