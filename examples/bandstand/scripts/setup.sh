# Once for each clone: git takes no programs from a repository by itself.
set -e
git config merge.etape.name "Etape documents, by ids"
git config merge.etape.driver "npx etape merge %O %A %B --out %A"
git config merge.etape.recursive binary
git config core.hooksPath hooks
