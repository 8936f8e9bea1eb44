<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Edits\EditRunner;
use App\Exceptions\UserError;
use App\Scenes\SceneRows;

final class ApplyCommand extends ReelCommand
{
    protected $signature = 'reel:apply {scene} {edits : a JSON file with a list of commands, or - for standard input} {--json}';

    protected $description = 'Run edit commands on a scene, all or none';

    protected function work(): int
    {
        $path = $this->argument('edits');
        $text = $path === '-' ? (string) stream_get_contents(STDIN) : $this->file($path);
        $commands = json_decode($text, true);
        if (is_array($commands) && isset($commands['commands'])) {
            $commands = $commands['commands'];
        }
        if (! is_array($commands) || ! array_is_list($commands)) {
            throw new UserError(
                'apply.json',
                'The edits are not a JSON list of commands: '.json_last_error_msg().'.',
                'Write [{"do": "...", ...}, ...]; docs/edits.md lists the commands.',
            );
        }
        [$edit, $manifest] = app(EditRunner::class)->run($this->scene($this->argument('scene')), null, $commands);

        return $this->answer(
            [
                'revision' => $edit->revision, 'label' => $edit->label,
                'changes' => SceneRows::changes($edit->row_changes, $edit->scene_id),
                'frames' => $manifest['frames'],
            ],
            ["Revision {$edit->revision}: {$edit->label}. ".count($edit->row_changes).' rows changed.'],
        );
    }
}
