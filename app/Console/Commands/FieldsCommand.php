<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Scenes\RowTypes;
use CrispReel\Core\Document\Fields\JsonSchema;

/** What is written from the fields of the core's rows: the schema of scene files, and the types of the front end. */
final class FieldsCommand extends ReelCommand
{
    protected $signature = 'reel:fields {--check : only says whether they are as the fields have them}';

    protected $description = 'Write the scene schema and the TypeScript of the rows from the core\'s fields';

    protected function work(): int
    {
        $stale = [];
        foreach (self::files() as $path => $text) {
            if ((string) @file_get_contents(base_path($path)) !== $text) {
                $stale[] = $path;
                $this->option('check') || file_put_contents(base_path($path), $text);
            }
        }
        $what = $this->option('check') ? 'Stale: ' : 'Written: ';
        $this->line($stale === [] ? 'All as the fields have it.' : $what.implode(', ', $stale));

        return $stale === [] || ! $this->option('check') ? self::SUCCESS : self::FAILURE;
    }

    /** @return array<string, string> text by path */
    public static function files(): array
    {
        return [
            'core/resources/scene.schema.json' => json_encode(
                JsonSchema::document(),
                JSON_THROW_ON_ERROR | JSON_PRETTY_PRINT | JSON_UNESCAPED_SLASHES,
            )."\n",
            'resources/js/workspace/rows.generated.ts' => RowTypes::write(),
        ];
    }
}
