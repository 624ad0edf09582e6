<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<title>Handset</title>
<style>{!! $style !!}</style>
</head>
<body>
<iframe title="The application under test" src="{{ $address }}"
  sandbox="allow-scripts allow-same-origin allow-forms allow-modals allow-popups"></iframe>
</body>
</html>
