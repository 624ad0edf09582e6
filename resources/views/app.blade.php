<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<meta name="color-scheme" content="light dark">
<title>Lucid Step</title>
<link rel="icon" href="/mark.svg" type="image/svg+xml">
<link rel="manifest" href="/app.webmanifest">
@vite(['resources/css/app.css', 'resources/js/main.ts'])
</head>
<body>
<div id="app"></div>
<noscript>Lucid Step needs JavaScript.</noscript>
</body>
</html>
