<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Models\RenderJob;
use Illuminate\Contracts\View\View;
use Illuminate\Http\Request;
use Illuminate\Http\Response;

/** Two pages: the application, and the internal one that draws frames for the render worker. */
final class PageController
{
    public function app(Request $request): View
    {
        return view('app');
    }

    public function draw(string $render): Response
    {
        $quality = RenderJob::query()->whereKey($render)->value('quality');

        return response(view('draw', ['render' => $render, 'quality' => is_string($quality) ? $quality : 'draft']));
    }
}
