#!/usr/bin/env bash
# Fails a build when the app breaks a load limit, and says which import did it. For a pull request: the report is
# written as Markdown, to be posted by whatever your pipeline posts comments with.
#
#   examples/ci/check-load.sh APP_FOLDER [REF] [REPORT]
#
# Limits and plans are those in yokeline.plan.json beside the code: project menu › Keep plans beside the code, or
# yokeline keep PROJECT_FILE --in APP_FOLDER. With REF (the branch that is merged into) the report says what changed of each landing since.
# For review systems that take SARIF: yokeline check APP_FOLDER --against REF --sarif
set -uo pipefail
app=${1:?folder of the app}
ref=${2:-}
report=${3:-load-report.md}
yokeline=${YOKELINE:-yokeline}

$yokeline check "$app" ${ref:+--against "$ref"} --markdown >"$report"
status=$?
cat "$report"
case $status in
  0) echo "load limits kept" ;;
  1) echo "load limits broken: see $report" >&2 ;;
  *) echo "the check could not be made, or a limit names what isn't there any more" >&2 ;;
esac
exit $status
