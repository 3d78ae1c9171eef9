# What has to hold before anything is merged: the design, the code that was made from it, and the app as it was last tried.
set -e
npx etape format bandstand.etape.json --check
npx etape check bandstand.etape.json
npx etape gen bandstand.etape.json --to typescript --react --out src --check
npx etape follow bandstand.etape.json --log logs/evening.jsonl
