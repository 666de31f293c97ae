#!/usr/bin/env bash
# Starts the real server and the stand-ins for the browser tests, with a database and a store of their own.
# Usage: serve.sh FOLDER PORT PORT-OUTSIDE PORT-SMTP short|whole; short is some of the demo's lessons, only the first seconds of each, 360 lines high.
set -euo pipefail
home=$(cd "$(dirname "$0")/../.." && pwd)
data=$1 server_port=$2 outside_port=$3 smtp_port=$4 demo=$home/demo
database="wexel_e2e_$$"
pg=$(sed -E 's/.*Port=([0-9]+).*/\1/' <<<"$WEXEL_TEST_POSTGRES")
PGPASSWORD=$(sed -nE 's/.*Password=([^;]*).*/\1/p' <<<"$WEXEL_TEST_POSTGRES"); export PGPASSWORD
bin=$(ls -d /usr/lib/postgresql/*/bin | sort -V | tail -1)
mkdir -p "$data/folders"
if [ "$5" = short ]; then
  demo=$data/demo; mkdir -p "$demo/recordings"
  cp "$home/demo/play-throughs.json" "$home/demo/mark.png" "$home/demo/house.json" "$demo"; cp "$home"/demo/recordings/*.txt "$home"/demo/recordings/*.vtt "$demo/recordings"
  node -e '
    const kept = ["Opening the desk", "Selling a vehicle crossing", "Closing the till", "Refunds and changes"]
    const lessons = JSON.parse(require("fs").readFileSync(process.argv[1])).filter((l) => kept.includes(l.title)).map(({ opening, marks, ...l }) => l)
    require("fs").writeFileSync(process.argv[2], JSON.stringify(lessons))
    for (const l of lessons) console.log(`${l.released ? 45 : 8}\t${l.file}`)' "$home/demo/lessons.json" "$demo/lessons.json" |
    # What is released is watched, also on a machine so busy that a test lags behind it.
    while IFS=$'\t' read -r seconds file; do
      ffmpeg -nostdin -v error -t "$seconds" -i "$home/demo/recordings/$file" -vf scale=-2:360 -c:v libx264 -preset ultrafast -crf 18 -c:a copy "$demo/recordings/$file"
    done
fi
"$bin/createdb" -h 127.0.0.1 -p "$pg" -U wexel "$database"
here=http://127.0.0.1:$server_port back=http://127.0.0.1:$server_port/provider/0199c3e0-0000-7000-8000-00000000c0de
StandIns__Clients__0__Id=wexel StandIns__Clients__0__Secret=tide-table StandIns__Clients__0__Back=$back/back StandIns__Clients__0__SignedOut=$here/sign-in StandIns__Clients__0__BackChannel=$back/signed-out \
StandIns__DirectorySeconds=2 StandIns__SmtpPort=$smtp_port StandIns__Data="$data/outside" ASPNETCORE_URLS="http://127.0.0.1:$outside_port" \
  dotnet "$home/src/Wexel.StandIns/bin/Release/net10.0/Wexel.StandIns.dll" > "$data/stand-ins.log" 2>&1 & outside=$!
Video__Clients__0__Id=wexel Video__Clients__0__Secret=tide-table Video__Clients__0__Back=$here/api/video-services/back Video__SecondsASecond=5 Video__SmtpPort=$smtp_port Video__Data="$data/skerry" \
  ASPNETCORE_URLS="http://127.0.0.1:$((server_port + 4))" dotnet "$home/src/Wexel.StandIns.Video/bin/Release/net10.0/Wexel.StandIns.Video.dll" > "$data/skerry.log" 2>&1 & skerry=$!
ConnectionStrings__Wexel="$WEXEL_TEST_POSTGRES;Database=$database" Wexel__Data="$data/files" Wexel__Assets="$home/artifacts" Wexel__Demo="$demo" Wexel__KeepFree=0 Wexel__OutletFolders__0="$data/folders" \
  Wexel__PublicAddress="http://127.0.0.1:$server_port/" Wexel__SmtpPort=$smtp_port \
  Wexel__PracticeLearningSystem="http://127.0.0.1:$outside_port/learning/packages/" Wexel__PracticeProvider="http://127.0.0.1:$outside_port/" Wexel__PracticeDirectory="http://127.0.0.1:$outside_port/" Wexel__ProviderAnswersWithin=00:00:30 Wexel__OutletHosts__0="127.0.0.1:$((server_port + 3))" Wexel__Skerry__Address="http://127.0.0.1:$((server_port + 4))/" Wexel__Skerry__ClientSecret=tide-table Wexel__VideoLooksEvery=00:00:01 Wexel__VideoFiguresEvery=00:00:03 ASPNETCORE_URLS="http://127.0.0.1:$server_port" \
  dotnet "$home/artifacts/server/Wexel.Server.dll" > "$data/server.log" 2>&1 & server=$!
trap 'kill $server $outside $skerry 2>/dev/null; wait 2>/dev/null; rm -rf "$data"; exit 0' INT TERM EXIT
wait $server
