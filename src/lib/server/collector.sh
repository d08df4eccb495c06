#!/bin/sh
# Reads what a Linux machine says of itself and prints one record, to be pasted into Orange Stair under "Bring in".
# It needs no rights beyond reading, changes nothing, and sends nothing anywhere. Several records may be put in one file:
#
#     for h in draw-01 draw-02; do ssh "$h" sh -s <collector.sh; done >records.txt
#
# What it cannot read it leaves out. It keeps to the POSIX shell and the tools every Linux machine has.
LC_ALL=C
export LC_ALL

say() {
  # label, value: one line, nothing where there is no value
  value=$(printf '%s' "$2" | tr '\t\r\n' '   ' | sed 's/^ *//; s/ *$//')
  [ -n "$value" ] && printf '%s: %s\n' "$1" "$value"
}

release=
for file in /etc/os-release /usr/lib/os-release; do
  [ -r "$file" ] && release=$file && break
done

from_release() {
  # the value of a key of os-release, quotes off; the file is read, never run
  [ -n "$release" ] || return 0
  sed -n "s/^[[:space:]]*$1=//p" "$release" | tail -n 1 |
    sed -e 's/^"\(.*\)"$/\1/' -e "s/^'\(.*\)'\$/\1/" -e 's/\\\(["$`\\]\)/\1/g'
}

from_info() {
  # file, key: the value behind the first "key : value" line
  [ -r "$1" ] && sed -n "s/^$2[[:space:]]*:[[:space:]]*//p" "$1" | head -n 1
}

first_line() {
  [ -r "$1" ] && head -n 1 "$1" 2>/dev/null
}

printf 'orange-stair-record 1\n'
say name "$(uname -n)"
say 'read on' "$(date +%Y-%m-%d)"
product=$(from_release NAME)
say product "${product:-$(uname -s)}"
version=$(from_release VERSION_ID)
say version "${version:-$(from_release VERSION)}"
say edition "$(from_release VARIANT)"
say build "$(from_release BUILD_ID)"
say architecture "$(uname -m)"
say cpe "$(from_release CPE_NAME)"
say support.ends "$(from_release SUPPORT_END)"
say memory "$(from_info /proc/meminfo MemTotal | sed 's/kB/KiB/')"
say processor.model "$(from_info /proc/cpuinfo 'model name')"
say processor.cores "$(getconf _NPROCESSORS_ONLN 2>/dev/null)"
say processor.bits "$(getconf LONG_BIT 2>/dev/null)"
say disk.total "$(df -P -k / 2>/dev/null | awk 'NR == 2 { printf "%d KiB", $2 }')"
say disk.free.system "$(df -P -k / 2>/dev/null | awk 'NR == 2 { printf "%d KiB", $4 }')"
say model "$(first_line /sys/class/dmi/id/product_name)"
rotational=$(cat /sys/block/*/queue/rotational 2>/dev/null | sort -u | tr -d '\n')
case $rotational in
  0) say drive.kind solid ;;
  1) say drive.kind spinning ;;
esac
case $(timedatectl show -p NTPSynchronized 2>/dev/null) in
  *=yes) say clock.right on ;;
  *=no) say clock.right off ;;
esac
[ -d /sys/class/tpm/tpm0 ] && say security-part on
exit 0
