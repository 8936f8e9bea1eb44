<?php

declare(strict_types=1);

namespace App\Edits\Commands;

use App\Edits\EditCommand;
use App\Edits\EditContext;
use CrispReel\Core\Document\Rate;
use Illuminate\Support\Facades\DB;

/**
 * Rate and picture shape of the whole production. A new rate keeps every beat, cut and key at its time: frames are
 * brought over to the nearest one in all scenes.
 */
final class ProductionSet implements EditCommand
{
    private const FRAMES = [
        'beats' => ['start'], 'links' => ['from_frame', 'to_frame'], 'shots' => ['in_frame', 'out_frame'],
        'touch_ups' => ['from_frame', 'to_frame'], 'contacts' => ['from_frame', 'to_frame'],
    ];

    private const PLAY_FRAMES = ['holdBefore', 'holdAfter', 'fill', 'skip', 'length', 'fadeIn', 'fadeOut'];

    public function name(): string
    {
        return 'production.set';
    }

    public function rules(): array
    {
        return [
            'rate' => 'sometimes|array|size:2', 'rate.*' => 'integer|min:1', 'width' => 'sometimes|integer|min:64|max:4096',
            'height' => 'sometimes|integer|min:64|max:4096',
        ];
    }

    public function apply(EditContext $scene, array $in): string
    {
        $production = $scene->scene->production;
        $values = array_intersect_key($in, ['width' => 1, 'height' => 1]);
        if (is_array($in['rate'] ?? null)) {
            $new = new Rate((int) $in['rate'][0], (int) $in['rate'][1]);
            $old = new Rate((int) $production->rate_num, (int) $production->rate_den);
            $values += ['rate_num' => $new->num, 'rate_den' => $new->den];
            $this->retime($scene, $production->scenes()->pluck('id')->all(), $new->perSecond() / $old->perSecond());
        }
        if ($values !== []) {
            $scene->rows->update('productions', $production->id, $values);
            $scene->scene->unsetRelation('production');
        }

        return isset($in['rate']) ? 'Set the frame rate' : 'Set the picture size';
    }

    /** @return array<array-key, mixed> */
    private static function list(?string $json): array
    {
        $v = $json === null ? null : json_decode($json, true);

        return is_array($v) ? $v : [];
    }

    /** @param  array<int, mixed>  $scenes */
    private function retime(EditContext $scene, array $scenes, float $factor): void
    {
        $to = static fn (mixed $f): ?int => $f === null ? null : (int) round((int) $f * $factor);
        foreach (self::FRAMES as $table => $columns) {
            foreach (DB::table($table)->whereIn('scene_id', $scenes)->orderBy('id')->get() as $row) {
                $values = [];
                foreach ($columns as $column) {
                    $values[$column] = $to($row->{$column});
                }
                $scene->rows->update($table, (int) $row->id, $values);
            }
        }
        foreach (['cameras', 'touch_ups'] as $table) {
            foreach (DB::table($table)->whereIn('scene_id', $scenes)->orderBy('id')->get() as $row) {
                $keys = array_map(static fn (array $k): array => ['frame' => $to($k['frame'])] + $k, self::list($row->keys));
                $scene->rows->update($table, (int) $row->id, ['keys' => json_encode($keys)]);
            }
        }
        foreach (
            DB::table('beats')->whereIn('scene_id', $scenes)->whereRaw('(path is not null or play is not null)')->orderBy('id')
                ->get() as $row
        ) {
            $path = self::list($row->path);
            $play = self::list($row->play);
            $path = isset($path['arrive']) ? ['arrive' => $to($path['arrive'])] + $path : $path;
            foreach (self::PLAY_FRAMES as $name) {
                $play = isset($play[$name]) ? [$name => $to($play[$name])] + $play : $play;
            }
            if (isset($play['speeds'])) {
                $play['speeds'] = array_map(static fn (array $k): array => [$k[0] * $factor, $k[1]], $play['speeds']);
            }
            $scene->rows->update('beats', (int) $row->id, [
                'path' => $path === [] ? null : json_encode($path), 'play' => $play === [] ? null : json_encode($play),
            ]);
        }
        foreach (
            DB::table('items')->whereIn('scene_id', $scenes)->whereRaw('(moves is not null or route is not null)')->orderBy('id')
                ->get() as $row
        ) {
            $moves = array_map(static fn (array $k): array => ['frame' => $to($k['frame'])] + $k, self::list($row->moves));
            $route = self::list($row->route);
            foreach (['from', 'to'] as $name) {
                $route = isset($route[$name]) ? [$name => $to($route[$name])] + $route : $route;
            }
            $scene->rows->update('items', (int) $row->id, [
                'moves' => $moves === [] ? null : json_encode($moves), 'route' => $route === [] ? null : json_encode($route),
            ]);
        }
    }
}
