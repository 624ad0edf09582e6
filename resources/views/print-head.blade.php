<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta http-equiv="Content-Security-Policy" content="default-src 'none'; style-src 'unsafe-inline'; img-src data:">
<title>{{ $title }}</title>
<style>
body { font: 11pt/1.4 "Atkinson Hyperlegible Next", system-ui, sans-serif; color: #1F2733;
  max-width: 60em; margin: 2em auto; padding: 0 1em }
body > h1 { font-size: 18pt }
article h1 { font-size: 14pt }
article { break-inside: avoid-page; border-top: 1px solid #8A8577; padding-top: .6em; margin-top: 1.6em }
h2 { font-size: 13pt; margin: .2em 0 }
.key, .facts { color: #586072 }
table { width: 100%; border-collapse: collapse; margin: .6em 0 }
th, td { text-align: left; vertical-align: top; padding: .35em .6em .35em 0; border-bottom: 1px solid #E4DFD3 }
th { font-weight: 400; color: #586072 }
tr { break-inside: avoid }
td p { margin: 0 0 .3em }
img { max-width: 22em; max-height: 14em; display: block; margin-top: .3em; border: 1px solid #E4DFD3 }
.data { white-space: pre-line; font-family: ui-monospace, monospace; font-size: .9em }
</style>
</head>
<body>
<h1>{{ $title }}</h1>
