# What the browser fetches to show the Desk for the first time: scripts and styles, gzipped. Wanted: at most 250 KB.
require "zlib"

require_relative "../config/settings"

dist = Settings.dist
# From the entry page: the scripts and styles it names, and what those load before the Desk stands (Vite's static
# imports).
entry = File.read(File.join(dist, "index.html")).scan(%r{(?:src|href)="/(assets/[^"]+\.(?:js|css))"}).flatten
queue = entry.dup
seen = []
while (file = queue.shift)
  next if seen.include?(file)

  seen << file
  next unless file.end_with?(".js")

  queue.concat(
    File
      .read(File.join(dist, file))
      .scan(%r{(?:from|import)\s*["']\./([^"']+\.js)["']})
      .flatten
      .map { |name| "assets/#{name}" }
  )
end
sizes = seen.to_h { |name| [name, Zlib.gzip(File.binread(File.join(dist, name)), level: 9).bytesize] }
sizes.sort_by { |_, bytes| -bytes }.each { |name, bytes| puts format("%8.1f KB  %s", bytes / 1000.0, name) }
puts format("%8.1f KB  scripts and styles together", sizes.values.sum / 1000.0)
fonts = Dir[File.join(dist, "assets/*.woff2")]
puts format(
  "%8.1f KB  fonts shipped, of which a page loads those of its script", fonts.sum { |path| File.size(path) } / 1000.0
)
