require_relative "app_helper"
require "capybara/rspec"
require "capybara/cuprite"
require "net/http"
require "socket"
require "tmpdir"

FLAGS = {
  "no-sandbox" => nil,
  "disable-gpu" => nil,
  "disable-dev-shm-usage" => nil,
  "disable-quic" => nil,
  "no-first-run" => nil,
  "disable-background-networking" => nil,
  "disable-component-update" => nil,
  "disable-sync" => nil,
  # A mouse, as most have who keep minutes.
  "blink-settings" => "primaryHoverType=2,availableHoverTypes=2,primaryPointerType=4,availablePointerTypes=4",
  "host-resolver-rules" => "MAP * ~NOTFOUND, EXCLUDE 127.0.0.1, EXCLUDE localhost"
}.freeze

# What a page complains of: an error on its console, or one that nobody caught. Refusals by the server, which the
# browser writes there too, are what many examples are about.
module Complaints
  HEARD = Queue.new
  # The driver runs a script of its own in every frame, and mails are shown in one that lets none run.
  OF_THE_DRIVER = /\ABlocked script execution in .* sandboxed/

  def self.taken = Array.new(HEARD.size) { HEARD.pop }

  private

  def prepare_page
    super
    on("Runtime.consoleAPICalled") do |said|
      next unless said["type"] == "error"

      HEARD << said["args"].filter_map { |one| one["description"] || one["value"] }.join(" ")
    end
    on("Runtime.exceptionThrown") { |said| HEARD << said.dig("exceptionDetails", "exception", "description").to_s }
    command("Log.enable")
    on("Log.entryAdded") do |said|
      entry = said["entry"]
      next if entry["level"] != "error" || entry["source"] == "network" || entry["text"].match?(OF_THE_DRIVER)

      HEARD << entry["text"]
    end
  end
end
Capybara::Cuprite::Page.prepend(Complaints)

# The browser's own clock, as far ahead as everything else (bin/test --as-of).
module Ahead
  module_function

  def ms = (Float(ENV.fetch(Clock::AHEAD, "0")) * 1_000).round

  def script
    path = File.join(Settings.var, "ahead.js")
    File.write(path, <<~JS)
      {
        const Machine = Date
        const now = () => Machine.now() + #{ms}
        globalThis.Date = new Proxy(Machine, {
          construct: (_, given, type) => Reflect.construct(Machine, given.length ? given : [now()], type),
          apply: () => new Machine(now()).toString(),
          get: (of, name) => (name === 'now' ? now : Reflect.get(of, name)),
        })
      }
    JS
    path
  end
end

# A browser of its own for each example would load and compile the application each time, which takes long. This one
# keeps what it has loaded, and begins each example in a new tab without cookies and without what is stored.
class OneBrowser < Capybara::Cuprite::Driver
  # First nothing may be on its way any more: an answer that came later would sign in again.
  def reset!
    left = browser.window_handles
    browser.options.reset_window_size
    browser.switch_to_window(context.create_target.id)
    left.each { |handle| browser.close_window(handle) }
    server = Capybara.current_session.server
    server.wait_for_pending_requests
    browser.command("Storage.clearCookies", browserContextId: context.id)
    browser.page.command("Storage.clearDataForOrigin", origin: server.base_url, storageTypes: "all")
  ensure
    @started = false
  end

  private

  def context = browser.contexts.default_context
end

Capybara.register_driver(:browser) do |app|
  OneBrowser.new(
    app, browser_path: "/usr/bin/chromium-headless-shell", headless: true, window_size: [1280, 800],
    browser_options: FLAGS.dup, process_timeout: 30, timeout: 20, js_errors: true,
    extensions: Ahead.ms.zero? ? [] : [Ahead.script]
  )
end
Capybara.default_driver = :browser
Capybara.server = :puma, {Silent: true, Threads: "1:16"}
Capybara.server_host = "127.0.0.1"
require_relative "support/outage"
require_relative "support/pressed"
require_relative "support/call_exchange"
Capybara.app = Outage.new(Pressed.new(Api::App.build))
# The call service reports to it, and so has to know where it will be.
Capybara.server_port = TCPServer.open("127.0.0.1", 0) { |server| server.addr[1] }
# Beside other work a stand-in may take its time.
Capybara.default_max_wait_time = 20
# Looking a hundred times a second would cost more than what is looked at.
Capybara.default_retry_interval = 0.1
Capybara.disable_animation = true
Capybara.enable_aria_label = true

# The stand-in for mail as a process of its own, as bin/start runs it, and the worker beside it.
module PostOffice
  module_function

  def open
    @dir = Dir.mktmpdir
    @http, smtp, @mail_in, @smpp = Array.new(4) { TCPServer.open("127.0.0.1", 0) { |server| server.addr[1] } }
    env = {
      "LEFT_OVER_POST_PORT" => @http.to_s, "LEFT_OVER_SMTP_PORT" => smtp.to_s,
      "LEFT_OVER_ENTRANCE_PORT" => @mail_in.to_s, "LEFT_OVER_SMPP_PORT" => @smpp.to_s, "LEFT_OVER_VAR" => @dir
    }
    @pid = spawn(
      env, "setpriv", "--pdeathsig", "TERM", "bundle", "exec", "ruby", "stand_ins/post/tray.rb",
      chdir: Settings::ROOT, out: File::NULL, err: File::NULL
    )
    @entrance = spawn(
      env, "setpriv", "--pdeathsig", "TERM", "bundle", "exec", "ruby", "bin/lib/entrance.rb", chdir: Settings::ROOT,
      out: File::NULL, err: File::NULL
    )
    @smtp = smtp
  end

  # Both take a while to come up; the first example may be theirs.
  def await
    deadline = Process.clock_gettime(Process::CLOCK_MONOTONIC) + 30
    [@http, @mail_in].each do |port|
      TCPSocket.new("127.0.0.1", port).close
    rescue Errno::ECONNREFUSED
      raise if Process.clock_gettime(Process::CLOCK_MONOTONIC) > deadline

      Thread.pass
      retry
    end
  end

  # The worker runs beside the examples in the browser only: elsewhere it would take what a spec is about to look at.
  # What the tray holds from other examples is gone: a mail of the same words would be taken for one's own.
  def work
    FileUtils.rm_f(Dir.glob(File.join(@dir, "{post,texts}", "*")))
    @worker = Worker.new(
      post: Mailing::Smtp.new(address: "127.0.0.1", port: @smtp, tls: "off"),
      texts:
        Mailing::Smpp.new(
          address: "127.0.0.1", port: @smpp, system_id: "leftover", password: "leftover", from: "LeftOver"
        )
    )
    @thread = Thread.new { @worker.run }
  end

  def rest
    @worker.stop
    @thread.join
  end

  def address = "http://127.0.0.1:#{@http}"

  def close
    [@pid, @entrance].each do |pid|
      Process.kill("TERM", pid)
      Process.wait(pid)
    end
    FileUtils.rm_rf(@dir)
  end
end

module Browsing
  NotYet = Class.new(StandardError)

  AXE = File.read(File.expand_path("../web/node_modules/axe-core/axe.min.js", __dir__))

  def sign_in_as(name)
    visit "/"
    fill_in "Mail address", with: address_of(name)
    fill_in "Password", with: Stage::PASSWORD
    click_button "Sign in"
    expect(page).to have_css "header.bar"
  end

  # What is still to be done here is done before the next page: a visit would overtake it.
  def sign_out
    find(".me").click
    find(".v-list-item", text: "Sign out").click
    expect(page).to have_field "Password"
  end

  # Waits for what goes on in other processes, looking as often as Capybara does. @return what came, or nil
  def within_s(seconds)
    page.document.synchronize(seconds, errors: [NotYet]) { yield or raise NotYet }
  rescue NotYet
    nil
  end

  def eventually(&) = expect(within_s(15, &)).to be_truthy

  # No violation of WCAG as axe-core finds them, in a dialog when one is open. A dialog that still fades in has less
  # contrast than one that stands.
  # @param only [Array<String>, nil] rules of axe-core; nil: all
  def expect_accessible(within: "body", only: nil)
    page.execute_script(AXE) if page.evaluate_script("!window.axe")
    found = page.evaluate_async_script(<<~JS, within, only)
      const [within, only, done] = arguments
      const rules = { region: { enabled: false }, 'target-size': { enabled: true } }
      const about = node => `${node.target.join(' ')} ${node.failureSummary}`
      const said = violation => violation.nodes.slice(0, 3).map(about)
      const fading = document.getAnimations().filter(one => one.effect.getComputedTiming().iterations !== Infinity)
      Promise.allSettled(fading.map(one => one.finished))
        .then(() => axe.run(within, only ? { runOnly: only } : { rules }))
        .then(result => done(result.violations.map(one => `${one.id}: ${said(one).join(' | ')}`)))
    JS
    expect(found).to eq([]), "#{page.current_path}: #{found.join("\n")}"
  end

  def type(text) = page.active_element.send_keys(text)

  def dialog = find(".v-dialog")

  def keep(verb = "Save") = within(".v-dialog") { click_button verb }

  # Opens a dialog, gives what it makes or edits another name, and keeps it.
  def give_name(name, opened_by:, kept_by: "Save")
    click_button opened_by
    dialog.fill_in "Name", with: name
    keep kept_by
  end

  # Picks a file in the one field for files that is there.
  def pick_file(text, ending, field: "input[type=file]")
    file = Tempfile.new(["picked", ending])
    file.write(text)
    file.close
    find(field, visible: :all).set(file.path)
  end

  # @return [String] the bytes of a file, as who is signed in gets it
  def fetched(path)
    page.evaluate_async_script(<<~JS, path).split(",", 2).last.unpack1("m")
      const [path, done] = arguments
      const reader = new FileReader()
      reader.onload = () => done(reader.result)
      fetch(path).then(answer => answer.blob()).then(blob => reader.readAsDataURL(blob))
    JS
  end

  # Scripts and styles of the page shown, as they go over the wire.
  def bytes_to_draw
    names = page.evaluate_script("performance.getEntriesByType('resource').map(one => one.name)")
    names.grep(/\.(js|css)\z/).uniq.sum do |name|
      Net::HTTP.start(URI(name).host, URI(name).port) do |http|
        http.get(URI(name).path, "Accept-Encoding" => "gzip").body.bytesize
      end
    end
  end

  def choose_from(label, option)
    find(:xpath, "//*[contains(concat(' ', @class, ' '), ' v-input ')][.//label[normalize-space() = '#{label}']]")
      .find(".v-field")
      .then do |field|
        field.click
        # Beside other work the first press may come while the page is still being laid out.
        field.click unless page.has_css?(".v-overlay--active .v-list-item", wait: 4)
      end
    find(".v-overlay--active .v-list-item", text: option, exact_text: true).click
  end
end

# bin/test runs the browser specs in two of its three parts; each leaves what it has seen, and it looks at both.
RSpec.configure do |config|
  config.after(:suite) { File.write(File.join(Settings.var, "pressed"), Pressed::SEEN.to_a.join("\n")) }
end

RSpec.configure do |config|
  config.include Capybara::DSL, :web
  config.include Browsing, :web
  config.define_derived_metadata(file_path: %r{/spec/web/}) { |metadata| metadata[:web] = true }
  config.before(:suite) do
    PostOffice.open
    CallExchange.open(report_to: "http://127.0.0.1:#{Capybara.server_port}/api/call-reports")
  end
  config.after(:suite) { PostOffice.close }
  config.before(:each, :web) do
    Rack::Attack.reset!
    PostOffice.await
    PostOffice.work
  end
  config.after(:each, :web) do |example|
    name = example.description[0, 40].gsub(/\W+/, "-")
    page.driver.browser.screenshot(path: File.join(Settings.var, "log", "#{name}.png")) if example.exception
    Capybara.reset_sessions!
    PostOffice.rest
    complaints = Complaints.taken
    raise "The page complained:\n#{complaints.join("\n")}" if complaints.any? && example.exception.nil?
  end
end
