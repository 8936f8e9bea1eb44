<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Edits\EditRunner;
use App\Exceptions\UserError;
use App\Scenes\FirstCuts;
use CrispReel\Core\Coverage\Style;

final class CoverCommand extends ReelCommand
{
    protected $signature = 'reel:cover {scene} {--people= : names, with commas between} {--from=0} {--to=} {--style=plain}
        {--take : lays it on the reel} {--json}';

    protected $description = 'A first cut of what people do: set-ups, and shots among them';

    protected function work(): int
    {
        $scene = $this->scene($this->argument('scene'));
        $style = (string) $this->option('style');
        if (! in_array($style, Style::names(), true)) {
            throw new UserError('coverage.style', "\"{$style}\" is not a style.", 'Use one of: '.implode(', ', Style::names()).'.');
        }
        $people = array_values(array_filter(array_map(trim(...), explode(',', (string) $this->option('people')))));
        $cut = app(FirstCuts::class)->of($scene, $people, $this->whole('from') ?? 0, $this->whole('to'))[$style];
        if ($this->option('take')) {
            app(EditRunner::class)->run($scene, null, $cut['commands'], null);
        }
        $text = array_map(
            static fn (array $s): string => sprintf('%6d %6d  %s', $s['from'], $s['to'], $s['title']),
            $cut['shots'],
        );
        $text[] = sprintf('%d shots; who speaks is seen %d%% of the time.', count($cut['shots']), round(100 * $cut['facts']['seen']));

        return $this->answer($cut, $text);
    }
}
