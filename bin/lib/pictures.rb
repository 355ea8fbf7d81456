require "open3"
require "ferrum"
require "json"
require "net/http"
require "date"
require_relative "../../config/clock"
require_relative "../../config/settings"

# One picture of each main view, as the demo's keeper sees it.
class Pictures
  FLAGS = {"no-sandbox" => nil, "disable-gpu" => nil, "disable-dev-shm-usage" => nil, "hide-scrollbars" => nil,
           # A mouse: without one, what shows beneath a pointer shows always.
           "blink-settings" => "primaryHoverType=2,availableHoverTypes=2,primaryPointerType=4,availablePointerTypes=4",
           "host-resolver-rules" => "MAP * ~NOTFOUND, EXCLUDE 127.0.0.1, EXCLUDE localhost"}.freeze
  DIR = File.join(Settings::ROOT, "docs/screenshots")

  def initialize
    @browser = Ferrum::Browser.new(
      browser_path: "/usr/bin/chromium-headless-shell", headless: true, timeout: 20, process_timeout: 30,
      browser_options: FLAGS, env: {"TZ" => "Europe/Oslo"} # where the keeper is
    )
  end

  def take
    size(1280, 800)
    sign_in
    series = answer("/series")["series"].find { |one| one["title"].include?("mooring") }["id"]
    sheet = answer("/series/#{series}")["next"]["id"]
    picture("desk", "/", "section")
    picture("series", "/series/#{series}", "svg .age")
    me = answer("/session")["person"]["id"]
    look_for_time(me)
    picture("common-time", "/common-time", ".fit") { @browser.execute("document.querySelector('.fit .take').click()") }
    asking
    picture("answers", "/series/#{series}?show=answers", "td button")
    picture("actions", "/actions?whose=all", ".action") { press("More: Trial fit of new battery lids") }
    size(1280, 1180) # as far as what is to be ready
    picture("agenda", "/meetings/#{sheet}", ".topic") { send_agenda }
    size(1280, 800)
    issued(answer("/series/#{series}/meetings?gone=true")["meetings"].find { |one| one["state"] == "closed" }["id"])
    picture("start-now", "/now", ".who label") { start_now }
    trustees = answer("/series")["series"].find { |one| one["title"].include?("Trustees") }["id"]
    move_next(trustees)
    picture("invitation", "/series/#{trustees}", "svg .date") { moved_invitation }
    @browser.execute("document.querySelector('.v-dialog.v-overlay--active button[type=submit]').click()")
    sleep 3 # until the worker has handed it over
    picture("sheet-in-session", "/meetings/#{sheet}", ".topic") { hold }
    come_to_the_door(answer("/meetings/#{sheet}")["onCall"]["plain"])
    picture("door", "/meetings/#{sheet}", ".door .waiting")
    size(390, 800)
    picture("sheet-phone", "/meetings/#{sheet}", ".topic")
    picture("answer-phone", answer_path, "form")
    size(1280, 800)
    picture("sheet-review", "/meetings/#{sheet}", ".topic") { press("Close the meeting") }
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
    deadline = Clock.machine + 10
    sleep 0.05 until @browser.at_css(css) || Clock.machine > deadline
  end

  # @raise [RuntimeError] when there is no such button
  def press(label)
    button =
      @browser.css("button, a").find { |one| one.text.strip == label || one.attribute("aria-label") == label } or
      raise "No #{label}"
    @browser.execute("arguments[0].click()", button)
    sleep 0.8
  end

  def answer(path) =
    JSON.parse(@browser.evaluate_async("fetch('/api#{path}').then(answer => answer.text()).then(arguments[0])", 5))

  # Times put to people, and hours that others book, from both sides.
  def asking
    press("Ask for times, beginning with these")
    wait(".picture .mark")
    @browser.at_css("input").focus.type("The winter haul-out")
    shoot("asking-times")
    poll = answer("/time-polls")["polls"].first["id"]
    picture("asking", "/asking/#{poll}", ".plank")
    open = answer("/open-hours")["openHours"].first
    picture("open-hours", "/open-hours/#{open["id"]}/edit", ".host")
    size(390, 800)
    picture("asked-phone", poll_path(poll), "fieldset.time") do
      @browser.execute("document.querySelectorAll('.suits input').forEach((one, i) => i < 2 && one.click())")
    end
    size(1280, 800)
    picture("booking", open["path"], "td button.free") { @browser.at_css(".times button").click }
  end

  # As somebody asked has it in a mail.
  def poll_path(poll) = in_mails(%r{/ask/#{poll}/[^/\s]+/\h{40}})

  def send_agenda
    press("Send the agenda")
    press("Send")
    sleep 6 # until the notice has gone
  end

  def start_now
    @browser.at_css("input").focus.type("Buoy 7 adrift off the north bank")
    @browser.css(".who input").first(2).each(&:click)
  end

  # Three who were not asked come by the plain link.
  def come_to_the_door(plain)
    sleep 5 # until the call has heard that its meeting is on
    %w[Nell\ Comeau Olav\ Dahl Jo\ of\ the\ port\ office].each do |name|
      Net::HTTP.post_form(URI(plain["url"]), "name" => name, "passcode" => plain["passcode"])
    end
  end

  # The page of paper that issued minutes make.
  def issued(meeting_id)
    @browser.go_to("#{Settings.origin}/meetings/#{meeting_id}")
    wait(".topic")
    issue("Issue the minutes")
    paper("/api/meetings/#{meeting_id}/minutes.pdf")
  end

  def paper(path)
    pdf = @browser.evaluate_async(<<~JS, 20, path).split(",", 2).last.unpack1("m")
      const reader = new FileReader()
      reader.onload = () => arguments[1](reader.result)
      fetch(arguments[0]).then(answer => answer.blob()).then(blob => reader.readAsDataURL(blob))
    JS
    name = File.join(DIR, "minutes-paper")
    Open3.capture2("pdftoppm", "-png", "-r", "84", "-f", "1", "-singlefile", "-", name, stdin_data: pdf, binmode: true)
  end

  def issue(label)
    press(label)
    @browser.at_css(".v-dialog.v-overlay--active button[type=submit]").click
    sleep 3
  end

  # To the day after, two hours earlier.
  def move_next(series_id)
    meeting = answer("/series/#{series_id}")["next"]
    wall = (DateTime.parse(meeting["localStart"]) + 1 - Rational(2, 24)).strftime("%Y-%m-%dT%H:%M")
    @browser.evaluate_async(<<~JS, 5)
      const done = arguments[0]
      const move = async () => {
        const address = '/api/meetings/#{meeting["id"]}'
        const session = await (await fetch('/api/session')).json()
        const version = (await fetch(address)).headers.get('etag')
        const headers = { 'Content-Type': 'application/json', 'X-CSRF-Token': session.csrfToken, 'If-Match': version }
        const body = JSON.stringify({ localStart: '#{wall}' })
        return (await fetch(`${address}/time`, { method: 'PUT', headers, body })).status
      }
      move().then(done)
    JS
  end

  def moved_invitation
    press("Send the invitation")
    wait("iframe")
    @browser.at_css(".v-dialog textarea").focus.type("The accountant is only free on Friday.")
    sleep 1.5 # until the mail is shown with it
  end

  # Eight people in three zones, next week.
  def look_for_time(me, across: false)
    people = answer("/people")["people"]
    asked = {
      "Ines" => "required", "Marit" => "required", "Lars" => "required", "Wen" => "required", "Rory" => "required",
      "Tom" => "required", "Sunniva" => "optional", "Adaeze" => "optional"
    }.map { |name, role| {personId: people.find { |person| person["name"].start_with?(name) }["id"], role: role} }
    today = Clock.today
    look = {
      people: asked,
      groups: [],
      guests: [],
      lengthMin: 45,
      fromDay: (today + 8 - today.cwday).iso8601,
      days: 5,
      stepMin: 15,
      noticeMin: 0,
      gapMin: 0,
      stretchMin: 0,
      dayFrom: "08:00",
      dayTo: "18:00",
      weekdays: %w[mo tu we th fr],
      place: "none",
      seats: "",
      equipment: [],
      beforeMin: 0,
      afterMin: 0,
      across: across,
      run: {
        repeat: "weekly", interval: 1, count: 12, nth: 1
      }
    }
    @browser.execute(
      "localStorage.setItem('left-over:#{me}:draft:common-time-#{me}', #{JSON.generate(JSON.generate(look))})"
    )
  end

  # The private link, as it stands in the latest mail that has one.
  def answer_path = in_mails(%r{/answer/[0-9a-f/-]+})

  # What stands in one of the mails, the latest first.
  def in_mails(pattern)
    post = "http://127.0.0.1:#{Settings.post_port}"
    mails = JSON.parse(Net::HTTP.get(URI("#{post}/mails.json")))["mails"]
    mails.lazy.filter_map { |mail| Net::HTTP.get(URI("#{post}/mails/#{mail["key"]}"))[pattern] }.first
  end

  def hold
    press("Start the meeting")
    @browser.at_css(".v-dialog.v-overlay--active button[type=submit]")&.click # another day than planned
    sleep 1
    press("All others are here")
    press("Done: Update contact card for Halifax")
    press("Carry over: Get insurance quote for the tender")
    press("Discuss now: Mooring checks of the week")
    [
      "B-22 reports every six hours again.", "Decided: the old lids stay in use until spring",
      "Tomás to send the spare cell to Halifax by next Wednesday"
    ].each { |line| type(line, :Enter) }
    type("Someone to ring the yard about the crane", :Enter)
    type("Wen to flag B-09 in the archive by Thursday")
  end

  def type(text, *keys)
    entry = @browser.at_css(".entry textarea").focus
    entry.type(text)
    keys.each { |key| entry.type(key) }
    sleep 0.8
  end
end

Pictures.new.take
