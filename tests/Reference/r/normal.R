# Reference values of the standard normal distribution, from R's pnorm, qnorm and dnorm.
# Run: Rscript tests/Reference/r/normal.R > tests/Reference/r/normal.json   (recorded with R 4.2.2)
p <- c(0.001, 0.01, 0.05, 0.1, 0.25, 0.5, 0.8, 0.9, 0.95, 0.97, 0.98, 0.99, 0.995, 0.999, 0.9999)
z <- c(-9, -7.5, -4, -2, -1, -0.5, 0, 0.5, 1, 1.5, 2, 3, 5)
num <- function(x) paste0("[", paste(format(x, digits = 15, trim = TRUE), collapse = ","), "]")
cat('{"p":', num(p), ',"quantile":', num(qnorm(p)), ',"z":', num(z), ',"cumulative":', num(pnorm(z)), ',"loss":', num(dnorm(z) - z * pnorm(z, lower.tail = FALSE)), "}\n", sep = "")
