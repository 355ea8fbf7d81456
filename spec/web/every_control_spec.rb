require_relative "../web_helper"

# Controls that no journey comes by, pressed and looked for where a user would look.
RSpec.describe "Every control" do
  let!(:marit) { person("Marit Hauge", admin: true) }
  let!(:wen) { person("Wen Halloran") }
  let(:monday) { today + 7 + (1 - (today + 7).wday) % 7 }

  # An invitation of somebody elsewhere, as a file (RFC 5546 3.2.2).
  def harbour_dues(asked:)
    <<~ICAL.gsub("\n", "\r\n")
      BEGIN:VCALENDAR
      VERSION:2.0
      PRODID:x
      METHOD:REQUEST
      BEGIN:VEVENT
      UID:dues
      DTSTAMP:20260101T080000Z
      DTSTART:#{monday.strftime("%Y%m%d")}T100000Z
      DURATION:PT1H
      SUMMARY:Harbour dues
      ORGANIZER;CN=Olav Dahl:mailto:olav@port.example
      ATTENDEE:mailto:#{asked}@skerrybuoy.example
      END:VEVENT
      END:VCALENDAR
    ICAL
  end

  it "keeps people, groups and places, and takes a group away and back" do
    sign_in_as("Marit Hauge")
    visit "/people"
    give_name "Wen Halloran-Ek", opened_by: "Edit Wen Halloran"
    expect(page).to have_link "Wen Halloran-Ek"
    click_button "Groups"
    give_name "Boat crew", opened_by: "Add a group", kept_by: "Add"
    give_name "Shore crew", opened_by: "Edit Boat crew"
    expect(page).to have_css "b", text: "Shore crew"
    click_button "Remove Shore crew"
    expect(page).to have_content "its people stay"
    click_button "Undo"
    expect(page).to have_css "b", text: "Shore crew"
    click_button "Places"
    give_name "Chart room", opened_by: "Add a place", kept_by: "Add"
    click_link "Chart room"
    give_name "Map room", opened_by: "Edit"
    expect(page).to have_css "h1", text: "Map room"
    click_button "Remove"
    expect(page).to have_no_link "Map room"
    click_button "Undo"
    click_link "Map room"
    click_button "Remove"
    click_button "Close"
    eventually { Records::Place.where.not(removed_at: nil).exists? }
  end

  it "keeps hours, busy times by hand and private addresses on one's own page" do
    sign_in_as("Wen Halloran")
    visit "/people/#{wen}"
    click_button "Add hours on Saturday"
    click_button "Save the hours"
    expect(page).to have_content "The hours are saved."
    expect(Records::Person.find(wen).working_hours["sa"].size).to eq 1
    click_button "Make my private addresses"
    expect(find_field("When I am busy").value).to include "/feeds/busy/#{wen}/"
    click_button "Close these addresses"
    expect(page).to have_button "Make my private addresses"
  end

  it "calls off all later meetings with a reason, brings them back, and reminds who is silent" do
    id = series(
      marit, {required: wen}, title: "Mooring round", start: "#{monday}T14:00", rule: "FREQ=WEEKLY;BYDAY=MO;COUNT=4"
    )
    use(UseCases::Invitations, marit).send_all(id: key, series_id: id)
    sign_in_as("Marit Hauge")
    visit "/series/#{id}?show=answers"
    first("button", text: /\ARemind/).click
    expect(page).to have_content(/\d (person|people) reminded/)
    visit "/series/#{id}"
    click_button "Change the times"
    dialog.find("label", text: "call them off").click
    keep("Call them off")
    expect(page).to have_content "Say why, so that people understand."
    dialog.fill_in "Why", with: "The winch is in repair"
    keep("Call them off")
    expect(page).to have_content "They are called off. Nobody is told yet."
    expect(page).to have_content(/All meetings from .* on are called off/)
    find("p.untold button").click
    expect(page).to have_no_content(/on are called off/)
    expect(Records::Meeting.where(series_id: id).pluck(:state).uniq).to eq ["planned"]
  end

  it "lets the invited offer another time, and be mailed a calendar of all their meetings" do
    id = series(marit, {required: wen}, title: "Mooring round", start: "#{monday}T14:00", rule: nil)
    use(UseCases::Invitations, marit).send_all(id: key, series_id: id)
    visit URI(Loading::AnswerLink.address(id, wen)).path
    click_button "Offer another time"
    fill_in "Begins on, Oslo time", with: monday + 1
    fill_in "at", with: "15"
    click_button "Send the offer"
    expect(page).to have_css "p:focus", text: "The keeper takes it or turns it down"
    expect(page).to have_content(/You have offered .* instead/)
    expect(Records::OfferedTime.pluck(:person_id, :state)).to eq [[wen, "open"]]
    click_button "Mail me a calendar address for all my invitations"
    expect(page).to have_content "The address is on its way to your mail."
    eventually do
      Records::Mail.where(recipient: "wen@skerrybuoy.example", subject: "Your meetings as a calendar").exists?
    end
  end

  it "enters busy times by hand, and takes them and the calendar away" do
    sign_in_as("Wen Halloran")
    visit "/people/#{wen}"
    click_button "Add a calendar"
    dialog.find("label", text: "Busy times entered by hand").click
    dialog.fill_in "Name", with: "By hand"
    keep("Add")
    click_button "Add a busy time"
    dialog.fill_in "What (only for you)", with: "Dentist"
    {"From" => "15", "To" => "1600"}.each do |name, at|
      within("[role=group][aria-label='#{name}']") do
        fill_in name, with: monday.strftime("%-d %b %Y")
        fill_in "at", with: at
      end
    end
    keep
    expect(page).to have_css "li", text: /15:00–16:00 Dentist/
    find("li li", text: "Dentist").click_button("Remove")
    expect(page).to have_no_css "li li", text: "Dentist"
    click_button "Undo"
    expect(page).to have_css "li li", text: "Dentist"
    find("li li", text: "Dentist").click_button("Remove")
    click_button "Close"
    eventually { Records::BusySpan.count.zero? }
    click_button "Remove: By hand"
    expect(page).to have_no_css "b", text: "By hand"
    expect(Records::Calendar.count).to eq 1 # there is a way back for a while
    click_button "Close"
    eventually { [Records::Calendar.count, Records::BusySpan.count] == [0, 0] }
  end

  it "takes an invitation that came as a file, and says what is wrong with another" do
    ical = harbour_dues(asked: "wen")
    sign_in_as("Wen Halloran")
    pick_file ical.sub("METHOD:REQUEST", "METHOD:REPLY"), ".ics"
    expect(page).to have_content "This file asks you to nothing"
    pick_file ical, ".ics"
    expect(page).to have_content "Harbour dues"
    expect(Records::OutsideMeeting.pluck(:title)).to eq ["Harbour dues"]
  end

  it "changes and removes topics, lines and papers on a sheet, and takes a review back" do
    id = series(
      marit, {required: wen}, title: "Mooring round", start: "#{today + 1}T09:30", rule: "FREQ=WEEKLY;COUNT=3"
    )
    first, second = meeting_ids(id)
    state(first, marit, "in_session")
    action = raise_action(first, marit, "Order rope", owners: [wen])
    %w[closed issued].each { |to| state(first, marit, to) }
    topic(second, marit, "Safety")
    sign_in_as("Marit Hauge")
    visit "/meetings/#{second}"
    click_button "Edit the topic Safety"
    within(".topic form") do
      find_field("Topic").set("Safety at sea")
      click_button "Save"
    end
    expect(page).to have_content "Safety at sea"
    path = Tempfile.new(["chart", ".txt"]).tap { |one| one.write("depth") && one.close }.path
    find("input[aria-label='Add papers']", visible: :all).set(path)
    expect(page).to have_css "a", text: /chart.*txt/
    click_button "Start the meeting"
    click_button "Hold it now" # another day than planned
    click_button "Done: Order rope"
    click_button "Undo: Order rope"
    expect(page).to have_button "Done: Order rope"
    expect(Records::ActionItem.find(action).state).to eq "open"
  end

  it "edits an action from the Desk, and a line on the sheet, which can be removed with a way back" do
    id = series(
      marit, {required: wen}, title: "Mooring round", start: "#{today + 1}T09:30", rule: "FREQ=WEEKLY;COUNT=3"
    )
    first = meeting_ids(id).first
    state(first, marit, "in_session")
    raise_action(first, marit, "Order rope", owners: [marit])
    sign_in_as("Marit Hauge")
    click_button "Edit: Order rope"
    dialog.fill_in "What is to be done", with: "Order blue rope"
    dialog.fill_in "Due", with: "+7"
    keep
    expect(page).to have_content "Order blue rope"
    expect(Records::ActionItem.pick(:text, :due_on)).to eq ["Order blue rope", today + 7]
    visit "/meetings/#{first}"
    find(".line", text: "Order rope").hover
    click_button "Edit the line: Order rope"
    within(".line form") do
      fill_in "Line", with: "Order red rope"
      click_button "Save"
    end
    expect(page).to have_css ".line", text: "Order red rope"
    find(".line", text: "Order red rope").hover
    click_button "Edit the line: Order red rope"
    click_button "Remove the line"
    expect(page).to have_no_css ".line", text: "Order red rope"
    click_button "Undo"
    expect(page).to have_css ".line", text: "Order red rope"
  end

  it "removes topics and papers once the way back is over" do
    id = series(marit, {required: wen}, title: "Mooring round", start: "#{today + 1}T09:30", rule: nil)
    topic(meeting_ids(id).first, marit, "Safety")
    sign_in_as("Marit Hauge")
    visit "/meetings/#{meeting_ids(id).first}"
    find("input[aria-label='Add papers']", visible: :all).set(
      Tempfile.new(%w[chart .txt]).tap { |one| one.write("depth") && one.close }.path
    )
    find("button[aria-label^='Remove: chart']").click
    click_button "Close"
    eventually { Records::Paper.count.zero? }
    click_button "Edit the topic Safety"
    click_button "Remove the topic"
    expect(page).to have_no_css ".topic h2", text: "Safety"
    click_button "Undo"
    expect(page).to have_css ".topic h2", text: "Safety"
    click_button "Edit the topic Safety"
    click_button "Remove the topic"
    click_button "Close"
    eventually { Records::Topic.count.zero? }
  end

  it "holds a time from common time" do
    sign_in_as("Marit Hauge")
    visit "/common-time"
    fill_in "From", with: monday
    first(".fit .take", text: monday.strftime("%a %-d %b")).click # those of before may still stand there
    find(".fit.chosen button", text: "Hold this time").click
    keep("Hold it")
    expect(page).to have_content "Give it a title."
    dialog.fill_in "Title", with: "Berth talk"
    keep("Hold it")
    expect(page).to have_content "The time is held."
    click_link "Desk"
    expect(page).to have_css "li", text: "Berth talk"
  end

  it "adds a calendar to a place, puts a newer file in its stead, and reads an address again" do
    room = key
    use(UseCases::Places, marit).add(id: room, name: "Chart room", time_zone: "Europe/Oslo")
    taken_from = ->(hour) { harbour_dues(asked: "marit").sub("T100000Z", "T#{hour}0000Z") }
    sign_in_as("Marit Hauge")
    visit "/places/#{room}"
    click_button "Add a calendar"
    pick_file taken_from["08"], ".ics"
    keep("Add")
    eventually do
      Records::BusySpan.pluck(:starts_min) == [Core::Spans.minute(Time.utc(monday.year, monday.month, monday.day, 8))]
    end
    pick_file taken_from["09"], ".ics", field: "label.file input"
    eventually do
      Records::BusySpan.pluck(:starts_min) == [Core::Spans.minute(Time.utc(monday.year, monday.month, monday.day, 9))]
    end
    click_button "Add a calendar"
    dialog.find("label", text: "An address that is read again and again").click
    dialog.fill_in "Address", with: "http://127.0.0.1:9/rooms/chart.ics"
    keep("Add")
    expect(page).to have_css "b", text: "chart"
    click_button "Read now: chart"
    expect(page).to have_content "lies in a network that is not read from"
  end

  it "dismisses mail nobody could read, and answers from elsewhere with another time" do
    UseCases::IncomingMails.new.keep(
      sender: "x@x.example",
      source: "From: x@x.example\r\nSubject: Nonsense\r\nContent-Type: text/calendar\r\n\r\nnonsense"
    )
    ical = harbour_dues(asked: "marit")
    sign_in_as("Marit Hauge")
    pick_file ical, ".ics"
    expect(page).to have_content "Harbour dues"
    click_button "Offer another time"
    fill_in "Begins on, Oslo time", with: monday + 1
    fill_in "at", with: "15"
    click_button "Send the offer"
    expect(page).to have_content "Olav Dahl is offered that time."
    pick_file ical.sub("METHOD:REQUEST", "METHOD:CANCEL").sub("0101T080000Z", "0102T080000Z\r\nSEQUENCE:1")
      .sub("SUMMARY", "STATUS:CANCELLED\r\nSUMMARY"), ".ics"
    click_button "Dismiss: Harbour dues"
    expect(page).to have_no_content "Harbour dues"
    visit "/people"
    expect(page).to have_content "Nonsense"
    click_button "Dismiss"
    expect(page).to have_no_content "Nonsense"
  end

  it "carries a topic to another place with a finger" do
    id = series(marit, {required: wen}, title: "Mooring round", start: "#{today + 1}T09:30", rule: nil)
    meeting = meeting_ids(id).first
    %w[Safety Boats Weather].each do |title|
      topic(meeting, marit, title)
      clock.now += 1
    end
    sign_in_as("Marit Hauge")
    visit "/meetings/#{meeting}"
    expect(page).to have_css ".topic h2", count: 3
    page.execute_script(<<~JS)
      const centre = element => {
        const box = element.getBoundingClientRect()
        return { clientX: box.x + box.width / 2, clientY: box.y + box.height / 2 }
      }
      const [first, , third] = document.querySelectorAll('.topic')
      const handle = third.querySelector('.handle')
      const touch = (name, at) =>
        handle.dispatchEvent(new PointerEvent(name, { bubbles: true, pointerId: 1, pointerType: 'touch', ...at }))
      touch('pointerdown', centre(handle))
      touch('pointerup', centre(first))
    JS
    expect(page).to have_css ".topic:nth-of-type(1) h2", text: "Weather"
  end
end
