suppressMessages(library(forecast))
lines <- strsplit(readLines(commandArgs(TRUE)[1]), ",")
series <- lapply(lines, as.numeric)
weekly <- lapply(series[1:40], ts, frequency = 52)
monthly <- lapply(series[41:50], ts, frequency = 12)
w <- system.time(for (x in weekly) stlf(x, h = 6))["elapsed"] / 40
m <- system.time(for (x in monthly) forecast(ets(x), h = 12))["elapsed"] / 10
cat(w, m, "\n")
