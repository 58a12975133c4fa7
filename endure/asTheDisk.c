/* Keeps beside each file what of it was brought to the disk: a power cut leaves that and nothing newer. */
#define _GNU_SOURCE
#include <dlfcn.h>
#include <fcntl.h>
#include <limits.h>
#include <stdio.h>
#include <stdlib.h>
#include <string.h>
#include <sys/stat.h>
#include <unistd.h>

static void keep(int fd) {
  const char *from = getenv("BLUNKO_LIVE"), *to = getenv("BLUNKO_DISK");
  char link[64], path[PATH_MAX], copy[PATH_MAX], part[PATH_MAX];
  if (!from || !to) return;
  snprintf(link, sizeof link, "/proc/self/fd/%d", fd);
  ssize_t n = readlink(link, path, sizeof path - 1);
  if (n < 0) return;
  path[n] = 0;
  struct stat about;
  if (strncmp(path, from, strlen(from)) != 0 || fstat(fd, &about) != 0 || !S_ISREG(about.st_mode)) return;
  char name[PATH_MAX];
  snprintf(name, sizeof name, "%s", path + strlen(from));
  for (char *c = name + 1; *c; c++) if (*c == '/') *c = '~';
  snprintf(copy, sizeof copy, "%s/%s", to, name + 1);
  snprintf(part, sizeof part, "%s.part", copy);
  int in = open(path, O_RDONLY), out = open(part, O_WRONLY | O_CREAT | O_TRUNC, 0600);
  char bytes[1 << 16];
  ssize_t got;
  while (in >= 0 && out >= 0 && (got = read(in, bytes, sizeof bytes)) > 0)
    if (write(out, bytes, got) != got) break;
  if (in >= 0) close(in);
  if (out >= 0) close(out);
  rename(part, copy);
}

int fsync(int fd) {
  int (*real)(int) = dlsym(RTLD_NEXT, "fsync");
  int answer = real(fd);
  if (answer == 0) keep(fd);
  return answer;
}

int fdatasync(int fd) {
  int (*real)(int) = dlsym(RTLD_NEXT, "fdatasync");
  int answer = real(fd);
  if (answer == 0) keep(fd);
  return answer;
}
