require "ferrum"
require "json"
require_relative "../../config/settings"

# One picture of each main view, as the demo's keeper sees it.
class Pictures
  FLAGS = {"no-sandbox" => nil, "disable-gpu" => nil, "disable-dev-shm-usage" => nil, "hide-scrollbars" => nil,
           "host-resolver-rules" => "MAP * ~NOTFOUND, EXCLUDE 127.0.0.1, EXCLUDE localhost"}.freeze
  DIR = File.join(Settings::ROOT, "docs/screenshots")

  def initialize
    @browser = Ferrum::Browser.new(browser_path: "/usr/bin/chromium", headless: true, timeout: 20, process_timeout: 30, browser_options: FLAGS)
  end

  def take
    size(1280, 800)
    sign_in
    series = answer("/series")["series"].find { |one| one["title"].include?("mooring") }["id"]
    sheet = answer("/series/#{series}")["next"]["id"]
    picture("desk", "/", "section")
    picture("series", "/series/#{series}", "svg .age")
    picture("series-list", "/series", "li")
    picture("series-new", "/series/new", ".dates li")
    picture("people", "/people", "li")
    picture("actions", "/actions", "li") { press("All of my series") }
    picture("sheet-planning", "/meetings/#{sheet}", ".topic")
    in_theme("dark") { picture("series-dark", "/series/#{series}", "svg .age") }
    picture("invitation", "/series/#{answer("/series")["series"].find { |one| one["title"].include?("Trustees") }["id"]}", "svg .date") { untold_invitation }
    press("Send to 6 people")
    picture("sheet-in-session", "/meetings/#{sheet}", ".topic") { hold }
    size(390, 800)
    picture("sheet-phone", "/meetings/#{sheet}", ".topic")
    picture("desk-phone", "/", "section")
    size(1280, 800)
    open_post_tray
  ensure
    @browser.quit
  end

  private

  def size(width, height) = @browser.set_viewport(width: width, height: height)

  def sign_in
    @browser.go_to(Settings.origin)
    wait("input[type=email]")
    @browser.at_css("input[type=email]").focus.type("marit@skerrybuoy.example")
    @browser.at_css("input[type=password]").focus.type("buoys afloat")
    @browser.at_css("button[type=submit]").click
    wait("header.bar")
  end

  def picture(name, path, css)
    @browser.go_to("#{Settings.origin}#{path}")
    wait(css)
    yield if block_given?
    shoot(name)
  end

  def shoot(name)
    sleep 0.8 # fonts and transitions
    @browser.execute("scrollTo(0, 0)")
    @browser.screenshot(path: File.join(DIR, "#{name}.png"))
    puts name
  end

  def wait(css)
    deadline = Time.now + 10
    sleep 0.05 until @browser.at_css(css) || Time.now > deadline
  end

  def press(label)
    button = @browser.css("button, a").find { |one| one.text.strip == label || one.attribute("aria-label") == label } or raise "No #{label}"
    @browser.execute("arguments[0].click()", button)
    sleep 0.8
  end

  def answer(path) = JSON.parse(@browser.evaluate_async("fetch('/api#{path}').then(answer => answer.text()).then(arguments[0])", 5))

  def in_theme(name)
    @browser.execute("localStorage.setItem('left-over:theme', '#{name}')")
    yield
    @browser.execute("localStorage.setItem('left-over:theme', 'light')")
  end

  def untold_invitation
    press("Change title and people")
    field = @browser.css(".v-dialog input").first
    field.focus.type(:End, " and accounts")
    press("Keep")
    press("Send the invitation")
  end

  def open_post_tray
    @browser.go_to("http://127.0.0.1:#{Settings.post_port}/")
    wait("td")
    shoot("post-tray")
    @browser.go_to(@browser.at_css("td a").attribute("href").then { |path| "http://127.0.0.1:#{Settings.post_port}#{path}" })
    shoot("post-mail")
  end

  def hold
    press("Start the meeting")
    press("All others are here")
    press("Done: Update contact card for Halifax")
    press("Keep: Get insurance quote for the tender")
    press("Mooring checks of the week")
    ["B-22 reports every six hours again.", "Decided: the old lids stay in use until spring", "Tomás to send the spare cell to Halifax by next Wednesday"].each { |line| type(line, :Enter) }
    type("Wen to flag B-09 in the archive by Thursday")
  end

  def type(text, *keys)
    entry = @browser.at_css(".entry input").focus
    entry.type(text)
    sleep 0.6
    keys.each { |key| entry.type(key) }
    sleep 0.6
  end
end

Pictures.new.take
