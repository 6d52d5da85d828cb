import 'htmx.org';
