<?php

declare(strict_types=1);

use App\Edits\EditCommand;
use CrispReel\Core\CoreFailure;

/** What the core may not reach for: frameworks, the application, the clock and chance that cannot be told again. */
const OUTSIDE = ['Illuminate', 'App', 'Facebook', 'Carbon', 'Symfony', 'Tests'];
const UNTOLD = ['now', 'time', 'date', 'rand', 'mt_rand', 'random_int', 'microtime', 'app', 'config', 'env', 'getenv'];
const DEBUGGING = ['dd', 'dump', 'var_dump', 'print_r', 'ray'];

/** @return array<string, string> code by path */
function codeIn(string ...$folders): array
{
    $out = [];
    foreach ($folders as $folder) {
        $there = new RecursiveDirectoryIterator(base_path($folder), FilesystemIterator::SKIP_DOTS);
        foreach (new RecursiveIteratorIterator($there) as $file) {
            if (str_ends_with((string) $file, '.php')) {
                $out[substr((string) $file, strlen(base_path()) + 1)] = (string) file_get_contents((string) $file);
            }
        }
    }

    return $out;
}

/**
 * Names of other namespaces, and functions that are called.
 *
 * @return array{list<string>, list<string>}
 */
function reachedFor(string $code): array
{
    $tokens = array_values(array_filter(PhpToken::tokenize($code), static fn (PhpToken $t): bool => ! $t->isIgnorable()));
    [$names, $calls] = [[], []];
    foreach ($tokens as $k => $t) {
        if ($t->is([T_NAME_QUALIFIED, T_NAME_FULLY_QUALIFIED])) {
            $names[] = ltrim($t->text, '\\');
        }
        $called = $t->is([T_STRING, T_NAME_FULLY_QUALIFIED]) && ($tokens[$k + 1] ?? null)?->text === '(';
        if ($called && ! $tokens[max(0, $k - 1)]->is([T_OBJECT_OPERATOR, T_NULLSAFE_OBJECT_OPERATOR, T_DOUBLE_COLON, T_FUNCTION, T_NEW])) {
            $calls[] = ltrim($t->text, '\\');
        }
    }

    return [$names, $calls];
}

/**
 * @param  array<string, string>  $files
 * @return list<string> what reaches outside, by file
 */
function reachingOut(array $files): array
{
    $out = [];
    foreach ($files as $path => $code) {
        [$names, $calls] = reachedFor($code);
        foreach ($names as $name) {
            in_array(explode('\\', $name)[0], OUTSIDE, true) && $out[] = "{$path} uses {$name}";
        }
        foreach (array_intersect($calls, UNTOLD) as $call) {
            $out[] = "{$path} calls {$call}";
        }
    }

    return $out;
}

test('the core reaches for nothing outside itself', function (): void {
    $files = codeIn('core/src');
    expect(count($files))->toBeGreaterThan(250)->and(reachingOut($files))->toBe([]);
});

test('what would reach out is named', function (string $code, string $said): void {
    expect(reachingOut(['core/src/X.php' => "<?php {$code}"]))->toBe(["core/src/X.php {$said}"]);
})->with([
    ['use Illuminate\Support\Str;', 'uses Illuminate\Support\Str'], ['$a = \App\Models\Scene::find(1);', 'uses App\Models\Scene'],
    ['$t = time();', 'calls time'], ['$t = \microtime(true);', 'calls microtime'], ['return rand(0, 3);', 'calls rand'],
]);

test('methods and functions of the same names are none of it', function (): void {
    expect(reachingOut(['a' => '<?php $x->time(); $y?->date(); Clock::now(); function rand() {} new Time(); $time = 3;']))->toBe([]);
});

test('everything is strict, and nothing is left for debugging', function (): void {
    foreach (codeIn('core/src', 'app', 'core/tests', 'tests', 'database', 'config', 'routes') as $path => $code) {
        expect(str_contains($code, 'declare(strict_types=1);'))->toBeTrue($path)
            ->and(array_intersect(reachedFor($code)[1], DEBUGGING))->toBe([], $path);
    }
});

test('edit commands are final, and core failures carry a reason and a remedy', function (): void {
    foreach (array_keys(codeIn('app/Edits/Commands')) as $path) {
        $class = new ReflectionClass('App\\Edits\\Commands\\'.basename($path, '.php'));
        expect($class->isFinal())->toBeTrue($path)->and($class->implementsInterface(EditCommand::class))->toBeTrue($path);
    }
    $failures = array_filter(array_keys(codeIn('core/src')), static fn (string $p): bool => str_starts_with(basename($p), 'UnableTo'));
    expect($failures)->not->toBe([]);
    foreach ($failures as $path) {
        $class = 'CrispReel\\Core\\'.str_replace('/', '\\', substr($path, strlen('core/src/'), -4));
        expect(is_subclass_of($class, CoreFailure::class))->toBeTrue($path);
    }
});
