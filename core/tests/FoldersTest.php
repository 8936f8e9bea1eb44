<?php

declare(strict_types=1);

/**
 * The folders of the core in the order in which data passes through them; those on one line stand beside each other and do not use
 * each other. A folder uses those above it only.
 */
const FOLDERS = [
    ['Math'], ['Geometry', 'Speech'], ['Document'], ['Rig'], ['Format'], ['Motion'], ['Kit'], ['Intake'],
    ['Surfaces', 'Library', 'Sound', 'Cloth', 'Crowd'], ['Camera'], ['Meeting'], ['Compile'], ['Evaluate'], ['Staging'], ['Coverage'],
    ['Bake'], ['Reel'],
];

/**
 * Uses that point down the list, or beside.
 *
 * @param  array<string, string>  $files  code by path under core/src
 * @return list<string> each named by its file and what it uses
 */
function wrongUses(array $files): array
{
    $rank = [];
    foreach (FOLDERS as $k => $names) {
        $rank += array_fill_keys($names, $k);
    }
    $out = [];
    foreach ($files as $path => $code) {
        $own = explode('/', $path)[0];
        preg_match_all('/CrispReel\\\\Core\\\\(\w+)\\\\([\w\\\\]+)/', $code, $found, PREG_SET_ORDER);
        foreach ($found as [, $folder, $name]) {
            if ($folder !== $own && ($rank[$folder] ?? PHP_INT_MAX) >= ($rank[$own] ?? -1)) {
                $out[] = "{$path} uses {$folder}\\{$name}";
            }
        }
    }

    return array_values(array_unique($out));
}

/** @return array<string, string> */
function coreFiles(): array
{
    $root = dirname(__DIR__).'/src';
    $out = [];
    foreach (new RecursiveIteratorIterator(new RecursiveDirectoryIterator($root, FilesystemIterator::SKIP_DOTS)) as $file) {
        $path = substr((string) $file, strlen($root) + 1);
        if (str_ends_with($path, '.php') && str_contains($path, '/')) {
            $out[$path] = (string) file_get_contents((string) $file);
        }
    }

    return $out;
}

test('each folder of the core uses those above it only', function (): void {
    $files = coreFiles();
    expect(count($files))->toBeGreaterThan(150)->and(wrongUses($files))->toBe([])
        ->and(array_values(array_unique(array_map(static fn (string $p): string => explode('/', $p)[0], array_keys($files)))))
        ->toEqualCanonicalizing(array_merge(...FOLDERS));
});

test('a use that points down the list is found and named', function (string $path, string $line, array $named): void {
    expect(wrongUses([...coreFiles(), $path => "<?php\n{$line}\n"]))->toBe($named);
})->with([
    'an import' => ['Motion/Seeded.php', 'use CrispReel\Core\Compile\Lane;', ['Motion/Seeded.php uses Compile\Lane']],
    'a name in the code' => ['Rig/Seeded.php', 'new \CrispReel\Core\Kit\Costume;', ['Rig/Seeded.php uses Kit\Costume']],
    'a folder beside' => ['Cloth/Seeded.php', 'use CrispReel\Core\Crowd\Crowd;', ['Cloth/Seeded.php uses Crowd\Crowd']],
    'one above' => ['Compile/Seeded.php', 'use CrispReel\Core\Rig\Figure;', []],
]);
