<?php

declare(strict_types=1);

/*
 * Are the tests of Core able to fail? Changes one operator, constant or boundary of src/Core at a time, in a copy, runs
 * the tests of Core and Reference that reach the changed line, and prints the share of changes that a test noticed.
 * Which tests reach which line is asked once, of the extension pcov; without it every mutant meets all of them.
 * Usage: build/mutate.php [how many] [seed] [copies at once] [part of a path, to change no other file]
 */

use PhpParser\Node;
use PhpParser\NodeFinder;
use PhpParser\ParserFactory;
use SebastianBergmann\CodeCoverage\CodeCoverage;
use Symfony\Component\Process\Process;

require dirname(__DIR__).'/vendor/autoload.php';

$many = (int) ($argv[1] ?? 40);
$seed = (int) ($argv[2] ?? 1);
$copies = max(1, (int) ($argv[3] ?? 2));
$only = (string) ($argv[4] ?? '');
$root = dirname(__DIR__);
$place = $root.'/var/mutants';

/** Sources of its own, the libraries linked. */
function copied(string $root, string $copy): string
{
    (new Process(['mkdir', '-p', $copy.'/var']))->mustRun();
    foreach (['src', 'tests', 'config', 'phpunit.xml.dist', 'composer.json'] as $part) {
        (new Process(['cp', '-r', $root.'/'.$part, $copy]))->mustRun();
    }
    (new Process(['cp', '-al', $root.'/vendor', $copy.'/vendor']))->mustRun();
    foreach (['var/test/environment', 'build/php'] as $part) {
        if (file_exists($root.'/'.$part)) {
            (new Process(['cp', '-r', '--parents', $part, $copy], $root))->mustRun();
        }
    }

    return $copy;
}

const SWAPS = [
    Node\Expr\BinaryOp\Plus::class => '-',
    Node\Expr\BinaryOp\Minus::class => '+',
    Node\Expr\BinaryOp\Mul::class => '/',
    Node\Expr\BinaryOp\Div::class => '*',
    Node\Expr\BinaryOp\Smaller::class => '<=',
    Node\Expr\BinaryOp\SmallerOrEqual::class => '<',
    Node\Expr\BinaryOp\Greater::class => '>=',
    Node\Expr\BinaryOp\GreaterOrEqual::class => '>',
    Node\Expr\BinaryOp\BooleanAnd::class => '||',
    Node\Expr\BinaryOp\BooleanOr::class => '&&',
    Node\Expr\BinaryOp\Identical::class => '!==',
    Node\Expr\BinaryOp\NotIdentical::class => '===',
];
const METHODS = [
    'plus' => 'minus',
    'minus' => 'plus',
    'multipliedBy' => 'dividedBy',
    'isLessThan' => 'isLessThanOrEqualTo',
    'isGreaterThan' => 'isGreaterThanOrEqualTo',
    'isLessThanOrEqualTo' => 'isLessThan',
    'isGreaterThanOrEqualTo' => 'isGreaterThan',
    'isPositive' => 'isZero',
    'isNegative' => 'isZero',
];

/**
 * Each with the lines of the statement it stands in; none for a constant, which is told of no line.
 *
 * @return list<array{file: string, at: int, length: int, was: string, now: string, lines: list<int>}>
 */
function mutations(string $file): array
{
    $code = (string) file_get_contents($file);
    $found = [];
    $finder = new NodeFinder();
    $tree = (new ParserFactory())->createForHostVersion()->parse($code) ?? [];
    $statements = [];
    foreach ($finder->findInstanceOf($tree, Node\Stmt\ClassMethod::class) as $method) {
        array_push($statements, ...$finder->findInstanceOf($method->stmts ?? [], Node\Stmt::class));
    }
    $add = static function (int $at, string $was, string $now) use (&$found, $file, $statements): void {
        $lines = [];
        foreach ($statements as $one) {
            // What is found later is further within.
            if ($one->getStartFilePos() <= $at && $one->getEndFilePos() >= $at) {
                $lines = range($one->getStartLine(), $one->getEndLine());
            }
        }
        $found[] = ['file' => $file, 'at' => $at, 'length' => strlen($was), 'was' => $was, 'now' => $now,
            'lines' => $lines];
    };
    // Messages, and what is shown of a formula, are no rules.
    $skip = array_map(
        static fn (Node $node): array => [$node->getStartFilePos(), $node->getEndFilePos()],
        $finder->find(
            $tree,
            static fn (Node $node): bool => $node instanceof Node\Expr\Throw_
                || ($node instanceof Node\Expr\FuncCall
                    && $node->name instanceof Node\Name
                    && 'sprintf' === $node->name->toString()),
        ),
    );
    $shown = static function (Node $node) use ($skip): bool {
        foreach ($skip as [$from, $to]) {
            if ($node->getStartFilePos() >= $from && $node->getEndFilePos() <= $to) {
                return true;
            }
        }

        return false;
    };
    foreach ($finder->findInstanceOf($tree, Node\Expr\BinaryOp::class) as $node) {
        if (isset(SWAPS[$node::class]) && !$shown($node)) {
            $sign = $node->getOperatorSigil();
            $between = substr(
                $code,
                $node->left->getEndFilePos() + 1,
                $node->right->getStartFilePos() - $node->left->getEndFilePos() - 1,
            );
            if (false !== ($at = strpos($between, $sign))) {
                $add($node->left->getEndFilePos() + 1 + $at, $sign, SWAPS[$node::class]);
            }
        }
    }
    foreach ($finder->findInstanceOf($tree, Node\Scalar\Int_::class) as $node) {
        $was = substr($code, $node->getStartFilePos(), $node->getEndFilePos() - $node->getStartFilePos() + 1);
        if (!$shown($node) && $node->value > 1) {
            $add($node->getStartFilePos(), $was, (string) ($node->value + 1));
        }
    }
    foreach ($finder->findInstanceOf($tree, Node\Expr\MethodCall::class) as $node) {
        if ($node->name instanceof Node\Identifier && isset(METHODS[$node->name->name]) && !$shown($node)) {
            $add($node->name->getStartFilePos(), $node->name->name, METHODS[$node->name->name]);
        }
    }

    return $found;
}

/** @param list<string> $more arguments */
function tests(string $copy, array $more, float $seconds): Process
{
    $run = new Process(['php', '-d', 'memory_limit=1G', ...$more], $copy);
    $run->setTimeout($seconds);
    $run->disableOutput();

    return $run;
}

/**
 * Which classes of tests reach which line.
 *
 * @return array<string, array<int, list<string>>>|null by file and line; null where nothing can tell
 */
function reached(string $copy): ?array
{
    $coverage = $copy.'/var/reached.php';
    $run = tests($copy, [
        '-d',
        'extension=pcov.so',
        '-d',
        'pcov.directory=src/Core',
        'vendor/bin/phpunit',
        '--testsuite',
        'Core,Reference',
        '--coverage-filter',
        'src/Core',
        '--coverage-php',
        $coverage,
    ], 7200);
    $run->run();
    if (!is_file($coverage)) {
        return null;
    }
    $read = require $coverage;
    assert($read instanceof CodeCoverage);
    $map = [];
    foreach ($read->getData()->lineCoverage() as $file => $lines) {
        foreach ($lines as $line => $by) {
            $classes = array_map(static fn (string $test): string => explode('::', $test)[0], $by ?? []);
            $map[substr($file, strlen($copy) + 1)][$line] = array_values(array_unique($classes));
        }
    }

    return $map;
}

(new Process(['rm', '-rf', $place]))->mustRun();
$free = array_map(static fn (int $n): string => copied($root, $place.'/'.$n), range(1, $copies));
$map = reached($free[0]);
// What goes round for ever is noticed, too; what is only slow, as all of it may be here, is not.
$log = $free[0].'/var/whole.xml';
$whole = tests($free[0], ['vendor/bin/phpunit', '--testsuite', 'Core,Reference', '--log-junit', $log], 7200);
0 === $whole->run() || exit("Core or Reference fails without any change.\n");
$takes = [];
foreach ((new SimpleXMLElement((string) file_get_contents($log)))->xpath('//testcase') as $case) {
    $class = (string) $case['class'];
    $takes[$class] = ($takes[$class] ?? 0.0) + (float) $case['time'];
}

$all = [];
$files = new RecursiveDirectoryIterator($root.'/src/Core', FilesystemIterator::SKIP_DOTS);
foreach (new RecursiveIteratorIterator($files) as $file) {
    foreach (str_contains((string) $file, $only) ? mutations((string) $file) : [] as $one) {
        $one['file'] = substr($one['file'], strlen($root) + 1);
        $one['line'] = 1 + substr_count(
            substr((string) file_get_contents((string) $file), 0, $one['at']),
            "\n",
        );
        $all[] = $one;
    }
}
usort($all, static fn (array $a, array $b): int => [$a['file'], $a['at']] <=> [$b['file'], $b['at']]);
mt_srand($seed);
$picked = (array) array_rand($all, min($many, count($all)));
$survivors = [];
$judge = static function (array $one, bool $noticed) use (&$survivors): void {
    if (!$noticed) {
        $survivors[] = sprintf('%s:%d  %s became %s', $one['file'], $one['line'], $one['was'], $one['now']);
    }
};
$running = [];
do {
    while ([] !== $free && [] !== $picked) {
        $one = $all[array_shift($picked)];
        $classes = array_keys($takes);
        if (null !== $map) {
            $lines = $map[$one['file']] ?? [];
            $classes = array_merge(
                [],
                ...array_values([] === $one['lines']
                    ? $lines
                    : array_intersect_key($lines, array_flip($one['lines']))),
            );
            if ([] === $classes) {
                // Reached by no test.
                $judge($one, false);
                continue;
            }
        }
        $classes = array_unique($classes);
        $filter = implode('|', array_map(static fn (string $class): string => preg_quote($class).'::', $classes));
        $copy = array_pop($free);
        $code = (string) file_get_contents($copy.'/'.$one['file']);
        file_put_contents($copy.'/'.$one['file'], substr_replace($code, $one['now'], $one['at'], $one['length']));
        $run = tests(
            $copy,
            ['vendor/bin/phpunit', '--testsuite', 'Core,Reference', '--stop-on-defect', '--filter', $filter],
            20 + 5 * array_sum(array_intersect_key($takes, array_flip($classes))),
        );
        $run->start();
        $running[] = [$run, $one, $copy, $code];
    }
    foreach ($running as $n => [$run, $one, $copy, $code]) {
        try {
            $run->checkTimeout();
        } catch (Symfony\Component\Process\Exception\ProcessTimedOutException) {
        }
        if (!$run->isRunning()) {
            file_put_contents($copy.'/'.$one['file'], $code);
            $judge($one, 0 !== $run->getExitCode());
            fwrite(\STDERR, 0 === $run->getExitCode() ? 'o' : '.');
            unset($running[$n]);
            $free[] = $copy;
        }
    }
    usleep(20_000);
} while ([] !== $running || [] !== $picked);
$tried = min($many, count($all));
printf(
    "Mutants of Core: %d of %d noticed, %.0f %%, out of %s there could be (seed %d)\n",
    $tried - count($survivors),
    $tried,
    (100 * ($tried - count($survivors))) / max(1, $tried),
    number_format(count($all)),
    $seed,
);
sort($survivors);
foreach ($survivors as $survivor) {
    echo '  not noticed: ', $survivor, "\n";
}
(new Process(['rm', '-rf', $place]))->mustRun();
