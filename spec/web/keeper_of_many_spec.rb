require_relative "../web_helper"

# Somebody who keeps a dozen series: what is untold is settled from the Desk, by keyboard; times pasted from a mail;
# public holidays left out; all of it where the system chooses the colours.
RSpec.describe "A keeper of many series" do
  let!(:marit) { person("Marit Hauge", admin: true) }
  let!(:wen) { person("Wen Halloran") }
  let(:monday) { next_monday(1) }

  def untold = Views::Desk.new(by: marit, clock: Clock).show[:untold]

  # The hand goes on with Tab alone, until it is there.
  def tab_to(name)
    60.times do
      label = page.evaluate_script(
        "(document.activeElement?.getAttribute('aria-label') || document.activeElement?.innerText || '').trim()"
      )
      return if label == name

      type :tab
    end
    raise "The hand never came to “#{name}”."
  end

  it "tells all of them from the Desk alone, by keyboard" do
    Array.new(12) { |i| "Round #{format("%02d", i + 1)}" }.each_with_index do |title, i|
      id = series(marit, {required: wen}, title: title, start: "#{monday}T#{format("%02d", 8 + i % 8)}:00")
      next if i.even?

      invite(id, marit)
      Records::Series.find(id).update!(purpose: "Another purpose")
    end
    sign_in_as "Marit Hauge"
    expect(page).to have_css "h2", text: "Not told yet"
    expect(page).to have_content "nobody has been told yet", count: 6
    expect(page).to have_content "1 person to tell of changes", count: 6
    expect_accessible
    untold.map { |one| one[:title] }.each do |title|
      tab_to "Send to people of #{title}"
      type :enter
      expect(page).to have_content "WHAT WEN HALLORAN GETS"
      tab_to "Send to 1 person"
      type :enter
      expect(page).to have_button "Done"
      tab_to "Done"
      type :enter
      expect(page).to have_no_css ".v-dialog form"
      expect(page).to have_no_button "Send to people of #{title}"
    end
    expect(page).to have_no_css "h2", text: "Not told yet"
    expect(untold).to eq []
    eventually { Records::Mail.where(recipient: "wen@skerrybuoy.example", state: %w[sent delivered]).count == 18 }
  end

  it "puts aside what is seen, and sees it again when it changes or is taken back" do
    otto = Records::Base.write { UseCases::Guests.new.by_name(name: "Otto Brandt", time_zone: "Europe/Oslo") }
    id = series(marit, {required: wen}, title: "Mooring round", start: "#{monday}T10:00")
    Records::SeriesMember.create!(id: key, series_id: id, person_id: otto.id, role: "required")
    invite(id, marit)
    sign_in_as "Marit Hauge"
    expect(page).to have_content "Otto Brandt has no address"
    click_button "Seen: Mooring round"
    expect(page).to have_content "Put aside."
    expect(page).to have_no_content "Otto Brandt has no address"
    click_button "Undo"
    expect(page).to have_content "Otto Brandt has no address"
    click_button "Give Otto Brandt an address"
    dialog.fill_in "Mail address", with: "otto"
    keep
    expect(dialog).to have_content "is not a mail address"
    dialog.fill_in "Mail address", with: "otto@port.example"
    keep
    expect(page).to have_content "1 person to invite"
    visit "/series"
    expect(page).to have_content "1 person to invite"
    click_button "Send to people of Mooring round"
    keep "Send to 1 person"
    expect(page).to have_button "Done"
    keep "Done"
    expect(page).to have_no_content "1 person to invite"
  end

  it "enters on the sheet what was said elsewhere, and calls it off: nothing else stands there then" do
    id = series(marit, {required: wen}, title: "Mooring round", start: "#{monday}T10:00")
    sheet = meeting_ids(id).first
    topic(sheet, marit, "Ropes")
    sign_in_as "Marit Hauge"
    visit "/meetings/#{sheet}"
    expect(page).to have_title(/\AMooring round, Monday/)
    expect(page).to have_content "Not told yet: nobody has been told yet"
    select "comes", from: "Answer of Wen Halloran, as you were told"
    expect(page).to have_content "Wen Halloran: comes, entered by you."
    expect(page).to have_content "1 OF 2"
    click_button "Send …"
    expect(page).to have_content "WHAT WEN HALLORAN GETS"
    keep "Cancel"
    click_button "Call it off…"
    dialog.fill_in "Why", with: "Storm"
    keep "Call it off"
    expect(page).to have_content "Called off: Storm"
    expect(page).to have_no_content "WHO COMES"
    expect(page).to have_no_content "RUNNING ORDER"
    expect_accessible
    click_button "Bring it back"
    expect(page).to have_content "WHO COMES"
  end

  it "pastes a list of times out of a mail, and gets back what cannot be read" do
    days = Array.new(3) { |i| monday + i }
    sign_in_as "Marit Hauge"
    visit "/asking/new"
    field = find_field("Or type or paste times")
    text = <<~MAIL
      Hi Marit,
      1. #{days[0].strftime("%A, %B %-d")}, 2:00 PM
      2. #{days[1].strftime("%a %-d %b")} 9am–noon
      • #{days[2].strftime("%-d %B")}: 10:00, 11:00
      #{days[2].strftime("%-d %b")} 14:00 CET
    MAIL
    page.execute_script(
      "arguments[0].value = arguments[1]; arguments[0].dispatchEvent(new Event('input', {bubbles: true}))", field, text
    )
    click_button "Add these"
    expect(page).to have_content "4 times of 40"
    [[0, "14:00"], [1, "09:00"], [2, "10:00"], [2, "11:00"]].each do |day, time|
      expect(page).to have_css "li", text: Core::Words.day(days[day]).sub(/ \d{4}\z/, ""), minimum: 1
      expect(page).to have_css "li", text: time, minimum: 1
    end
    expect(find_field("Or type or paste times").value).to eq "Hi Marit,\n#{days[2].strftime("%-d %b")} 14:00 CET"
    expect(page).to have_content "Not understood: Hi Marit,"
  end

  it "leaves out public holidays by name, and takes the last working day of each month" do
    sign_in_as "Marit Hauge"
    visit "/series/new"
    fill_in "Title", with: "Month’s end"
    choose_from "How often", "Monthly, on a working day such as the last"
    choose_from "On", "the last working day"
    expect(page).to have_content "On the last weekday of every month"
    choose_from "Public holidays", "Not on public holidays: on the next working day"
    find_field("Public holidays of").click
    type "Norw"
    find(".v-overlay--active .v-list-item", text: "Norway", exact_text: true).click
    expect(page).to have_content "on the next working day where that is a public holiday"
    choose_from "How often", "Daily"
    choose_from "Public holidays", "Not on public holidays: left out"
    expect(page).to have_css "[aria-label='On public holidays'] li", text: "1. juledag: left out"
    expect_accessible
    click_button "Make the series"
    expect(page).to have_css "h1", text: "Month’s end"
    expect(page).to have_content "not on public holidays"
    expect(Records::Meeting.where("called_off_reason like ?", "Public holiday: 1. juledag%")).to exist
  end

  it "says at the button what stands in the way, and leads to it" do
    room = key
    use(UseCases::Places, marit).add(id: room, name: "Chart room", time_zone: "Europe/Oslo")
    series(marit, {required: wen}, title: "First come", start: "#{monday}T10:00", place_id: room)
    sign_in_as "Marit Hauge"
    visit "/series/new"
    fill_in "First date", with: monday.iso8601
    click_button "Make the series"
    within("form .row", text: "Make the series") { expect(page).to have_content "Give the series a title." }
    expect(page.active_element).to eq find_field("Title")
    fill_in "Title", with: "Second"
    choose_from "Room or equipment", "Chart room"
    click_button "Make the series"
    within("form .row", text: "Make the series") { expect(page).to have_content "Chart room is held" }
  end

  it "tells by frames what it tells by colours, where the system chooses those" do
    busy = use(UseCases::Calendars, marit).add(id: key, name: "Mine", kind: "by_hand", person_id: marit)
    expect(busy).not_to be_nil
    series(marit, {required: wen}, title: "Mooring round", start: "#{monday}T10:00")
    page.driver.browser.page.command(
      "Emulation.setEmulatedMedia", features: [{name: "forced-colors", value: "active"}]
    )
    sign_in_as "Marit Hauge"
    visit "/common-time"
    expect(page).to have_css ".picture .bar", minimum: 5
    style = ->(css, name) { page.evaluate_script("getComputedStyle(document.querySelector(#{css.to_json})).#{name}") }
    expect(style[".picture .bar.all i, .picture .bar.likely i", "outlineStyle"]).to eq "solid"
    expect(style["[aria-current=page]", "outlineStyle"]).to eq "solid"
    pressed = "button[aria-pressed=true]"
    expect(style[pressed, "outlineStyle"]).to eq "solid"
    expect(style["button[aria-pressed=false]", "outlineStyle"]).to eq "none"
  ensure
    page.driver.browser.page.command("Emulation.setEmulatedMedia", features: [])
  end

  it "takes the address that somebody known by name alone gives by the shared link" do
    poll = key
    at = Core::Zone["Europe/Oslo"].instant(Core::WallTime.parse("#{monday}T14:00"))
    use(UseCases::TimePolls, marit).create(
      id: poll, title: "Winter plan", length_min: 60, time_zone: "Europe/Oslo", shows: "tally", tells: "end",
      outcome: "meeting", candidates: [{id: key, starts_at: at}], names: [{name: "Otto Brandt", role: "required"}]
    )
    use(UseCases::TimePolls, marit).share(id: poll, open: true, names: true)
    visit Loading::PollLink.shared_path(Records::TimePoll.find(poll))
    select "Otto Brandt", from: "Who are you?"
    fill_in "Your mail address, for the invitation (optional)", with: "otto@port.example"
    click_button "Send my answer"
    expect(page).to have_content "Sent."
    sign_in_as "Marit Hauge"
    visit "/asking/#{poll}"
    expect(page).to have_content "Otto Brandt: otto@port.example"
    click_button "Take the address of Otto Brandt"
    expect(page).to have_content "Otto Brandt can be mailed from now on."
    expect(page).to have_no_content "Otto Brandt: otto@port.example"
    expect(Records::Person.find_by!(name: "Otto Brandt").email).to eq "otto@port.example"
  end

  it "starts one now somewhere, with all of a group" do
    crew = key
    use(UseCases::Groups, marit).add(id: crew, name: "Crew", person_ids: [wen])
    sign_in_as "Marit Hauge"
    visit "/now"
    choose_from "All of a group", "All of Crew"
    expect(page).to have_css "li:has(input:checked)", text: "Wen Halloran"
    fill_in "Title", with: "Storm damage"
    uncheck "With a call", allow_label_click: true
    click_button "Start now"
    expect(page).to have_content "Say where: a place, or with a call."
    fill_in "Place", with: "North quay"
    click_button "Start now"
    expect(page).to have_css "h1", text: "Storm damage"
    expect(page).to have_content "North quay"
  end

  it "looks for what would help at a press, and begins a stretch where one wants" do
    use(UseCases::Calendars, marit).add(id: key, name: "Mine", kind: "by_hand", person_id: marit)
    sign_in_as "Marit Hauge"
    visit "/common-time"
    expect(page).to have_content "start any time"
    first(".fit .take").click
    expect(page).to have_select "Begins at"
    options = all("select option").map(&:text)
    select options[1], from: "Begins at"
    expect(page).to have_css ".frame"
    click_button "Later"
    expect(page).to have_no_select "Begins at"
    # The days are ten hours long, and one works for nine.
    fill_in "Minutes", with: "590"
    expect(page).to have_css "h2", text: "WHAT WOULD HELP"
    help = find(".help", text: "minutes instead of 590")
    wanted = help.text[/\A\d+/]
    help.click
    expect(page).to have_field "Minutes", with: wanted
    expect(page).to have_content "start any time", minimum: 1
  end
end
