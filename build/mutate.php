<?php

declare(strict_types=1);

/*
 * Are the tests of Core able to fail? Changes one operator, constant or boundary of src/Core at a time, in a copy, runs
 * Core and Reference on it, and prints the share of changes that a test noticed. Usage: build/mutate.php [how many]
 * [seed]
 */

use PhpParser\Node;
use PhpParser\NodeFinder;
use PhpParser\ParserFactory;

require dirname(__DIR__).'/vendor/autoload.php';

$many = (int) ($argv[1] ?? 40);
$seed = (int) ($argv[2] ?? 1);
$root = dirname(__DIR__);
$copy = $root.'/var/mutants';
shell_exec(
    sprintf(
        'rm -rf %1$s && mkdir -p %1$s && cp -r %2$s/src %2$s/tests %2$s/config %2$s/phpunit.xml.dist '
        .'%2$s/composer.json %1$s',
        escapeshellarg($copy),
        escapeshellarg($root),
    ),
);
shell_exec(
    sprintf(
        'mkdir -p %1$s/var/test && cp -r %2$s/vendor %1$s/vendor && cp %2$s/var/test/environment %1$s/var/test/ '
        .'2>/dev/null',
        escapeshellarg($copy),
        escapeshellarg($root),
    ),
);

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

/** @return list<array{file: string, at: int, length: int, was: string, now: string}> */
function mutations(string $file): array
{
    $code = (string) file_get_contents($file);
    $found = [];
    $add = static function (int $at, string $was, string $now) use (&$found, $file): void {
        $found[] = ['file' => $file, 'at' => $at, 'length' => strlen($was), 'was' => $was, 'now' => $now];
    };
    $finder = new NodeFinder();
    $tree = (new ParserFactory())->createForHostVersion()->parse($code) ?? [];
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

$all = [];
$files = new RecursiveDirectoryIterator($copy.'/src/Core', FilesystemIterator::SKIP_DOTS);
foreach (new RecursiveIteratorIterator($files) as $file) {
    array_push($all, ...mutations((string) $file));
}
/** @return bool whether a suite passes on what stands in the copy */
function passes(string $copy, string $suite, int $seconds): bool
{
    exec(
        sprintf(
            'cd %s && timeout %d php -d memory_limit=1G vendor/bin/phpunit --testsuite %s --stop-on-defect 2>&1',
            escapeshellarg($copy),
            $seconds,
            $suite,
        ),
        $output,
        $status,
    );

    return 0 === $status;
}

// What goes round for ever is noticed, too; what is only slow, as all of it may be here, is not. The slow suite comes
// last: most are noticed before.
$limits = [];
foreach (['Core', 'Reference'] as $suite) {
    $start = hrtime(true);
    passes($copy, $suite, 3600) || exit("$suite fails without any change.\n");
    $limits[$suite] = 30 + (int) (3 * (hrtime(true) - $start) / 1e9);
}
usort($all, static fn (array $a, array $b): int => [$a['file'], $a['at']] <=> [$b['file'], $b['at']]);
mt_srand($seed);
$killed = 0;
$survivors = [];
$picked = (array) array_rand($all, min($many, count($all)));
foreach ($picked as $n => $index) {
    $one = $all[$index];
    $code = (string) file_get_contents($one['file']);
    file_put_contents($one['file'], substr_replace($code, $one['now'], $one['at'], $one['length']));
    $unnoticed = passes($copy, 'Core', $limits['Core']) && passes($copy, 'Reference', $limits['Reference']);
    file_put_contents($one['file'], $code);
    $line = substr_count(substr($code, 0, $one['at']), "\n") + 1;
    if ($unnoticed) {
        $survivors[] = sprintf(
            '%s:%d  %s became %s',
            substr($one['file'], strlen($copy) + 1),
            $line,
            $one['was'],
            $one['now'],
        );
    } else {
        ++$killed;
    }
}
printf(
    "Mutants of Core: %d of %d noticed, %.0f %%, out of %s there could be (seed %d)\n",
    $killed,
    count($picked),
    (100 * $killed) / max(1, count($picked)),
    number_format(count($all)),
    $seed,
);
foreach ($survivors as $survivor) {
    echo '  not noticed: ', $survivor, "\n";
}
shell_exec('rm -rf '.escapeshellarg($copy));
