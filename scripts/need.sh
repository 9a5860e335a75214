#!/bin/sh
# Installs what the machine lacks, from Debian's packages: scripts/need.sh mariadb [chromium]
# Nothing is done when it is there already. No service is left running.
set -eu

missing=""
for want in "$@"; do
	case "$want" in
	mariadb) [ -x /usr/sbin/mariadbd ] || missing="$missing mariadb-server" ;;
	# The browser without windows, where Debian has it by itself; else the whole one.
	chromium)
		if command -v chromium-headless-shell >/dev/null 2>&1; then
			:
		elif apt-cache show chromium-headless-shell >/dev/null 2>&1; then
			missing="$missing chromium-headless-shell"
		elif ! command -v chromium >/dev/null 2>&1; then
			missing="$missing chromium"
		fi ;;
	*) echo "need.sh: unknown name '$want'" >&2; exit 2 ;;
	esac
done
[ -n "$missing" ] || exit 0

sudo=""
if [ "$(id -u)" -ne 0 ]; then
	command -v sudo >/dev/null 2>&1 || {
		echo "Please install these packages as root, then try again:$missing" >&2
		exit 1
	}
	sudo="sudo"
fi
command -v apt-get >/dev/null 2>&1 || {
	echo "This machine has no apt-get. Please install these by hand, then try again:$missing" >&2
	exit 1
}

echo "Installing$missing"
# Debian starts a database of its own when the package is installed; ours is
# private to this folder, so the packaged service is held back while it installs.
policy=/usr/sbin/policy-rc.d
held=""
if [ ! -e "$policy" ]; then
	printf '#!/bin/sh\nexit 101\n' | $sudo tee "$policy" >/dev/null
	$sudo chmod +x "$policy"
	held=yes
fi
log=$(mktemp)
trap '[ -z "$held" ] || $sudo rm -f "$policy"; rm -f "$log"' EXIT

# apt runs apt-get, waiting up to ten minutes for another package manager that is at
# work. When it fails it shows the package manager's own last lines.
apt() {
	waited=0
	until $sudo env DEBIAN_FRONTEND=noninteractive LC_ALL=C apt-get -o DPkg::Lock::Timeout=60 "$@" >"$log" 2>&1; do
		if grep -Eq 'Could not get lock|Unable to (acquire|lock)|is another process using it' "$log" && [ "$waited" -lt 600 ]; then
			[ "$waited" -gt 0 ] || echo "Another package manager is at work; waiting for it"
			sleep 5
			waited=$((waited + 5))
			continue
		fi
		echo "The package manager failed. Its last lines:" >&2
		tail -n 15 "$log" >&2
		exit 1
	done
}
apt update -q
# Only now is it sure what Debian has.
if [ "$missing" != "${missing%chromium}" ] && apt-cache show chromium-headless-shell >/dev/null 2>&1; then
	missing="${missing%chromium}chromium-headless-shell"
fi
# shellcheck disable=SC2086
apt install -y -q --no-install-recommends $missing
