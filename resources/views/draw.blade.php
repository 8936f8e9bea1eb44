<!doctype html>
<html lang="en">
<head>
    <meta charset="utf-8">
    <title>Drawing</title>
    @vite(['resources/js/draw.ts'])
</head>
<body data-render="{{ $render }}" data-quality="{{ $quality }}"></body>
</html>
