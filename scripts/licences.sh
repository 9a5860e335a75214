#!/bin/sh
# Collects the licences of everything that is shipped into web/dist/licences.txt: the Go
# modules that the program is built from, and the packages that the pages are built from,
# which the build of the pages has listed in web/dist/packages.txt.
set -eu

# of prints a name and the licence texts in a folder.
of() {
	found=$(find "$2" -maxdepth 1 -type f \( -iname 'licen[cs]e*' -o -iname 'copying*' -o -iname 'notice*' -o -iname 'ofl*' \) | sort)
	printf '\n==== %s ====\n\n' "$1"
	if [ -z "$found" ]; then # it only names its licence
		sed -n 's/.*"license": *"\(.*\)".*/Licence: \1/p' "$2/package.json" | grep . || { echo "licences.sh: $1 has no licence" >&2; exit 1; }
		return
	fi
	# shellcheck disable=SC2086
	cat $found
}

{
	echo "Verjuice is made with the work of others. These are their licences."
	# shellcheck disable=SC2016
	go list -deps -f '{{with .Module}}{{if not .Main}}{{.Path}} {{.Dir}}{{end}}{{end}}' ./cmd/verjuice | sort -u |
		while read -r name dir; do of "$name" "$dir"; done
	while read -r name; do of "$name" "web/node_modules/$name"; done <web/dist/packages.txt
} >web/dist/licences.tmp
mv web/dist/licences.tmp web/dist/licences.txt
