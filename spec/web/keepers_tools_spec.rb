require_relative "../web_helper"

# What a keeper changes in a week, and what becomes of it: one meeting alone, a hold, an offer, mail that does not
# arrive.
RSpec.describe "What a keeper changes" do
  let(:monday) { today + 7 + (1 - (today + 7).wday) % 7 }
  let!(:marit) { person("Marit Hauge", admin: true) }
  let!(:wen) { person("Wen Halloran") }
  let(:id) do
    series(
      marit, {required: wen}, title: "Mooring round", start: "#{monday}T14:00", rule: "FREQ=WEEKLY;BYDAY=MO;COUNT=4"
    )
  end
  let(:meeting) { meeting_ids(id).first }

  def busy(person_id, from, to)
    use(UseCases::Calendars, person_id).add(
      id: key,
      name: "Work",
      kind: "file",
      person_id: person_id,
      content:
        "BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:x\r\nBEGIN:VEVENT\r\nUID:1\r\nDTSTAMP:20260101T000000Z\r\n" \
          "DTSTART;TZID=Europe/Oslo:#{from}\r\nDTEND;TZID=Europe/Oslo:#{to}\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n"
    )
    nil while UseCases::Calendars.new.read_next
  end

  def start_of(meeting_id) = Core::Zone["Europe/Oslo"].wall(Records::Meeting.find(meeting_id).starts_at).to_s[0, 16]

  it "changes one meeting as it is typed beside everyone's calendars, and takes it back" do
    invite(id, marit)
    tuesday = monday + 1
    busy(wen, "#{tuesday.strftime("%Y%m%d")}T150000", "#{tuesday.strftime("%Y%m%d")}T160000")
    sign_in_as("Marit Hauge")
    visit "/meetings/#{meeting}"
    click_button "Change this meeting"
    dialog.fill_in "On, Oslo time", with: tuesday.strftime("%a %-d")
    dialog.fill_in "at", with: "1515"
    expect(page).to have_content "Wen Halloran is busy then."
    dialog.fill_in "at", with: "10.30"
    dialog.fill_in "Length", with: "1:30"
    expect(page).to have_content "Nobody knows whether Marit Hauge is free."
    dialog.find("label", text: "Held elsewhere than the series").click
    dialog.fill_in "Where else, or how to find it", with: "Net loft"
    expect_accessible within: ".v-dialog"
    dialog.click_button "Save"
    expect(page).to have_content "Nobody is told until you send the invitation again."
    expect(page).to have_content "10:30–12:00 Oslo time · Net loft"
    click_button "Undo"
    expect(page).to have_content "14:00–14:45 Oslo time"
    expect(page).to have_no_content "Net loft"
    expect(start_of(meeting)).to eq "#{monday}T14:00"
  end

  it "asks somebody to one meeting alone, from its sheet, and takes them off again" do
    olga = person("Olga Haas")
    sign_in_as("Marit Hauge")
    visit "/meetings/#{meeting}"
    click_button "Ask somebody else too"
    choose_from "Who", "Olga Haas"
    click_button "Ask them"
    expect(page).to have_content "Olga Haas is asked too."
    expect(page).to have_css ".person .name", text: "Olga Haas"
    expect(Records::Substitute.pluck(:person_id, :instead_of_id)).to eq [[olga, nil]]
    click_button "Remove: Olga Haas, asked to this meeting alone"
    expect(page).to have_no_css ".person .name", text: "Olga Haas"
    visit "/series/#{id}"
    click_button "Sheets"
    click_link "Change #{monday.strftime("%A %-d %B")}"
    expect(page).to have_css ".v-dialog h2", text: "Change #{monday.strftime("%A %-d %B")}"
  end

  it "moves a meeting twice from common time, where that comes first" do
    sign_in_as("Marit Hauge")
    visit "/meetings/#{meeting}"
    click_link "Find another time"
    fill_in "From", with: monday
    first(".fit .take", text: monday.strftime("%a %-d %b")).click # those of before may still stand there
    expect(first(".fit .deeds button").text).to eq "Move it here"
    first(".fit .deeds button").click
    expect(page).to have_content "Nobody is told yet."
    first_move = start_of(meeting)
    all(".fit .take")[2].click
    find(".fit.chosen .deeds button", text: "Move it here").click
    eventually { start_of(meeting) != first_move }
    expect(page).to have_no_content "Somebody changed this"
  end

  it "takes a change of the run back" do
    sign_in_as("Marit Hauge")
    visit "/series/#{id}"
    click_button "Change the times"
    expect(dialog).to have_css "dd", count: 2
    dialog.fill_in "Starts at", with: "9"
    expect(page).to have_css ".v-dialog dd", text: /09:00–09:45/
    dialog.find("button[type=submit]").click
    expect(page).to have_content "4 meetings moved"
    click_button "Undo"
    expect(page).to have_content "The times are as they were."
    expect(start_of(meeting)).to eq "#{monday}T14:00"
  end

  it "says why a meeting is called off, or that this is missing; and tells each kind of news as what it is" do
    invite(id, marit)
    sign_in_as("Marit Hauge")
    visit "/meetings/#{meeting}"
    click_button "Call it off…"
    dialog.click_button "Call it off"
    expect(page).to have_content "Say why, so that people understand."
    dialog.fill_in "Why", with: "Storm"
    dialog.click_button "Call it off"
    expect(page).to have_content "Called off: Storm"
    visit "/series/#{id}"
    expect(page).to have_content "1 person to tell of changes"
    find("button[aria-label='More to do with this series']").click
    find(".v-list-item", text: "Call off later meetings").click
    dialog.fill_in "Why", with: "No money"
    dialog.click_button "Call them off"
    expect(page).to have_content "1 person to tell that it is called off"
    click_button "Send the invitation"
    expect(dialog).to have_content "is told that it is called off"
    expect(dialog).to have_content "Called off: Mooring round"
    dialog.find("button[type=submit]").click
    expect(page).to have_content "Sent to 1 person."
  end

  it "shows both parts where another rule takes over, in the page and in the mail" do
    invite(id, marit)
    sign_in_as("Marit Hauge")
    visit "/series/#{id}"
    click_button "Change the times"
    expect(dialog).to have_css "dd", count: 2
    dialog.find(".v-select", text: "This is for").find(".v-field").click
    find(".v-overlay--active .v-list-item", text: (monday + 14).strftime("%-d %B")).click
    expect(dialog).to have_css "dd", text: /2 meetings/
    dialog.fill_in "Starts at", with: "9"
    expect(dialog).to have_css "dd", text: /09:00–09:45/
    dialog.find("button[type=submit]").click
    both =
      /2 Mondays until #{(monday + 7).strftime("%-d %B %Y")}, 14:00–14:45; then every Monday, 09:00–09:45 Oslo time/
    expect(page).to have_css ".about", text: both
    click_button "Send the invitation"
    click_button "Show it as text"
    expect(find("pre").text).to match both
    expect(
      find("pre").text
    ).to include "(was: Every Monday, 14:00–14:45 Oslo time, 4 meetings"
  end

  it "says who is in only through a group, what removing it does, and misses no guest that was typed" do
    group = key
    olga = person("Olga Haas")
    use(UseCases::Groups, marit).add(id: group, name: "Crew", person_ids: [olga])
    sign_in_as("Marit Hauge")
    visit "/series/#{id}"
    click_button "Edit the series"
    dialog.click_button "Who"
    choose_from "Add a person or group", "Group Crew"
    expect(dialog).to have_content "1 in it; removing it removes who is in only through it"
    dialog.fill_in "Guest's name", with: "Odd Berge"
    expect(dialog).to have_content "Give the guest's mail address, or empty the name."
    dialog.fill_in "Guest's mail address", with: "odd@harbour.example"
    dialog.click_button "Save"
    expect(page).to have_no_css ".v-dialog form"
    click_button "People"
    expect(page).to have_css "li", text: /Olga Haas.*through the group Crew/m
    expect(page).to have_css "li", text: /Odd Berge.*guest.*Oslo/m
  end

  it "deletes a series nobody has been told of" do
    id
    sign_in_as("Marit Hauge")
    visit "/series/#{id}"
    find("button[aria-label='More to do with this series']").click
    find(".v-list-item", text: "Delete the series").click
    expect(page).to have_content "“Mooring round” is deleted."
    expect(page).to have_css "h1", text: "Series"
    expect(Records::Series.exists?(id)).to be false
  end

  it "makes a hold the meeting with its people and its place, and releases another with a way back" do
    room = key
    use(UseCases::Places, marit).add(id: room, name: "Chart room", seats: 8, time_zone: "Europe/Oslo")
    at = Core::Zone["Europe/Oslo"].instant(Core::WallTime.parse("#{monday}T10:00"))
    {"Berth talk" => at, "Spare time" => at + 7_200}.each do |title, starts_at|
      use(UseCases::Holds, marit).keep(
        id: key, title: title, starts_at: starts_at, length_min: 45, time_zone: "Europe/Oslo",
        people: [{person_id: wen, role: "required"}], place_id: room
      )
    end
    sign_in_as("Marit Hauge")
    click_button "Release: Spare time"
    expect(page).to have_content "is no longer held"
    click_button "Undo"
    expect(page).to have_button "Release: Spare time"
    click_button "Make it the meeting: Berth talk"
    expect(page).to have_css "h1", text: "Berth talk"
    expect(page).to have_content "Chart room"
    made = Records::Series.find_by!(title: "Berth talk")
    expect(
      [
        made.members.map(&:person_id), Records::PlaceBooking.pluck(:place_id),
        Records::Hold.where(released_at: nil).pluck(:title)
      ]
    ).to match [match_array([marit, wen]), [room], ["Spare time"]]
  end

  it "asks before it holds a room that is too small or closed, and offers one that does" do
    hours = %w[mo tu we th fr].to_h { |day| [day, [%w[07:00 18:00]]] }
    use(UseCases::Places, marit).add(
      id: key, name: "Cupboard", seats: 1, time_zone: "Europe/Oslo", opening_hours: hours
    )
    use(UseCases::Places, marit).add(id: key, name: "Chart room", seats: 8, time_zone: "Europe/Oslo")
    sign_in_as("Marit Hauge")
    visit "/series/new"
    fill_in "Title", with: "Berth talk"
    fill_in "First date", with: monday
    fill_in "Starts at", with: "22"
    choose_from "Room or equipment", "Cupboard, 1 seats"
    choose_from "Add a person or group", "Wen Halloran"
    click_button "Make the series"
    expect(
      page
    ).to have_content "Cupboard has 1 seat, and 2 people are asked. Cupboard is closed on " \
      "#{monday.strftime("%A %-d %B %Y")} at 22:00"
    expect(page).to have_button "Take Chart room instead"
    click_button "Hold it all the same, and save"
    click_button "Make the series"
    expect(page).to have_css "h1", text: "Berth talk"
    expect(page).to have_content "Cupboard"
  end

  it "has an offer, a refusal and an address that fails on the Desk, and puts the address right" do
    guest = key
    version = Records::Series.find(id).lock_version
    use(UseCases::Series, marit).change(
      id: id, version: version, title: "Mooring round", members: [{person_id: wen, role: "required"}],
      guests: [{id: guest, name: "Odd Berge", email: "odd@harbour.example", role: "required"}]
    )
    invite(id, marit)
    Records::Mail.where(recipient: "odd@harbour.example").update_all(
      state: "failed", last_error: "550 no such mailbox"
    )
    use(UseCases::Answers, wen).keep(
      series_id: id, person_id: wen, meeting_id: meeting, answer: "declined", note: "At sea"
    )
    starts_at = Records::Meeting.find(meeting).starts_at + 86_400
    use(UseCases::OfferedTimes, wen).offer(
      id: key, meeting_id: meeting, person_id: wen, starts_at: starts_at, ends_at: starts_at + 2_700
    )
    sign_in_as("Marit Hauge")
    expect(page).to have_content "Wen Halloran cannot come on #{monday.strftime("%A %-d %B")}: “At sea”"
    expect(page).to have_content "Wen Halloran offers #{(monday + 1).strftime("%A %-d %B")}, 14:00"
    expect(page).to have_content "Mail does not reach Odd Berge at odd@harbour.example: 550 no such mailbox"
    click_button "Correct and send again: Odd Berge"
    fill_in "Mail address", with: "nonsense"
    click_button "Send again"
    expect(page).to have_content "is not a mail address"
    fill_in "Mail address", with: "odd@pier.example"
    click_button "Send again"
    expect(page).to have_content "Sent again to odd@pier.example."
    expect(page).to have_no_content "550 no such mailbox"
    eventually { Records::Mail.where(recipient: "odd@pier.example", state: %w[sent delivered]).exists? }
    expect(
      Records::Mail.find_by(
        recipient: "marit@skerrybuoy.example", subject: "Wen Halloran offers another time: Mooring round"
      )
    ).not_to be_nil
  end
end
