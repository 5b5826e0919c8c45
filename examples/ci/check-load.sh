#!/usr/bin/env bash
# Fails a build when the app breaks a load limit, and says which import did it. For a pull request: the report is
# written as Markdown, to be posted by whatever your pipeline posts comments with.
#
#   examples/ci/check-load.sh APP_FOLDER PROJECT_FILE [REPORT]
#
# PROJECT_FILE is kept beside the code. Set its limits under Handoff › Limits and save it under Handoff › Project and plan
# (without the code is enough), or: yokeline limits PROJECT_FILE --set-from PLAN
set -uo pipefail
app=${1:?folder of the app}
project=${2:?project file with limits}
report=${3:-load-report.md}
yokeline=${YOKELINE:-yokeline}

$yokeline check "$app" --project "$project" --markdown >"$report"
status=$?
cat "$report"
case $status in
  0) echo "load limits kept" ;;
  1) echo "load limits broken: see $report" >&2 ;;
  *) echo "the check could not be made, or a limit names what isn't there any more" >&2 ;;
esac
exit $status
