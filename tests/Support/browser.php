<?php

declare(strict_types=1);

use App\Models\Scene;
use App\Models\User;

/** A scene of its own with Oda and Bram on a pier, and the person who owns it. @return array{Scene, User, string} */
function furnished(object $test): array
{
    $user = $test->person('Tess Ribeiro');
    $scene = $test->scene($user);
    $test->edit($scene, [
        ['do' => 'item.add', 'asset' => 'ferry-pier', 'home' => true],
        ['do' => 'item.add', 'asset' => 'oda-ferrant', 'position' => [0, 0, 0.5], 'headingDeg' => 90],
        ['do' => 'item.add', 'asset' => 'bram-tiel', 'position' => [2.5, 0, 0.5], 'headingDeg' => -90],
        ['do' => 'beat.add', 'item' => 'Oda', 'motion' => 'talk'],
        ['do' => 'camera.add', 'position' => [1.2, 1.7, 6.5], 'rotation' => [0, 0, 0, 1], 'focalMm' => 35.0],
    ]);

    return [$scene->refresh(), $user, "/scenes/{$scene->id}"];
}
