require_relative "../web_helper"

RSpec.describe "Finding a time" do
  oslo = Core::Zone["Europe/Oslo"]
  # The specs count hours on Bergen's wall only, so clock changes do not matter.
  let(:monday) { today + (1 - today.wday) % 7 + 14 }

  # name => zone; the first eight are asked
  people = {
    "Marit Hauge" => "Europe/Oslo", "Ines Torvald" => "Europe/Oslo", "Lars Ekeli" => "Europe/Oslo",
    "Sunniva Dahl" => "Europe/Oslo", "Tomás Queirós" => "Europe/Lisbon", "Benedita Falcão" => "Europe/Lisbon",
    "Wen Halloran" => "America/Halifax", "Rory Penhallow" => "America/Halifax"
  }

  let!(:ids) { people.to_h { |name, zone| [name, person(name, zone: zone, admin: name.start_with?("Marit"))] } }

  # Busy times, each [day, from, to] on Bergen's wall; everybody else is known to be free.
  def busy(times = {})
    ids.each do |name, id|
      events = (times[name] || []).each_with_index.map do |(day, from, to), i|
        "BEGIN:VEVENT\r\nUID:#{name}#{i}\r\nDTSTAMP:20260101T000000Z\r\nSUMMARY:Private matter\r\n" \
          "DTSTART;TZID=Europe/Oslo:#{day.strftime("%Y%m%d")}T#{from}00\r\n" \
          "DTEND;TZID=Europe/Oslo:#{day.strftime("%Y%m%d")}T#{to}00\r\nEND:VEVENT\r\n"
      end
      UseCases::Calendars.new(by: id).add(
        id: key, name: "Work", kind: "file", person_id: id,
        content: "BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:x\r\n#{events.join}END:VCALENDAR\r\n"
      )
    end
    nil while UseCases::Calendars.new.read_next
  end

  def look(*names)
    sign_in_as("Marit Hauge")
    click_link "Common time"
    names.each { |name| choose_person(name) }
    fill_in "From", with: monday
  end

  def choose_person(name)
    find(
      :xpath,
      "//*[contains(concat(' ', @class, ' '), ' v-input ')][.//label[normalize-space() = 'Add a person or group']]"
    ).find(".v-field").click
    find(".v-overlay--active .v-list-item-title", text: name, exact_text: true).click
    expect(page).to have_css(".who li", text: name)
  end

  it "for eight people in three zones, and makes a series of it" do
    busy(
      "Ines Torvald" => [[monday, "1300", "1530"], [monday + 1, "1300", "1400"]],
      "Wen Halloran" => [[monday, "1500", "1700"]]
    )
    look(*people.keys.drop(1))
    click_button "Done"
    expect(page).to have_css(".fit", text: "All 8 free")
    expect(page).to have_css(".left li", text: "Halifax")
    expect_accessible
    # The picture is worked by keyboard: one stop for Tab, arrows, Enter.
    find(".picture [tabindex='0']").send_keys(:right)
    expect(page).to have_css(".picture .day:nth-of-type(3) [tabindex='0']:focus")
    type(:down)
    type(:enter)
    expect(page).to have_css(".fit.chosen")
    # A longer meeting, changed on the spot.
    before = find(".silhouettes [role=status]").text[/\d+/].to_i
    find("input.length").fill_in(with: "60")
    expect(page).to have_no_css(".silhouettes [role=status]", text: "#{before} times")
    expect(find(".silhouettes [role=status]").text[/\d+/].to_i).to be < before

    click_button "Change"
    find("label", text: "Across a run").click
    fill_in "Meetings", with: "5"
    expect(page).to have_css("h2", text: "Across 5 meetings")
    expect(page).to have_css("tr.chosen .held", count: 5)
    expect_accessible
    find("button", text: "Make a series at").click
    within(".v-dialog") { click_button "Make the series" }
    expect(page).to have_content "Give it a title."
    within(".v-dialog") do
      fill_in "Title", with: "Autumn review"
      click_button "Make the series"
    end
    expect(page).to have_css "h1", text: "Autumn review"
    expect(page).to have_content "5 meetings"
    expect(Records::Series.find_by(title: "Autumn review").members.count).to eq 8
  end

  it "across a run with one failing date, and takes rule and repair in one go" do
    busy(
      "Lars Ekeli" => [
        [monday + 7, "0000", "2359"],
        *[0, 14, 21].flat_map { |days| [[monday + days, "0000", "1300"], [monday + days, "1345", "2359"]] },
        *(1..4).flat_map do |day|
          [0, 7, 14, 21].map { |week| [monday + day + week, "0000", (week == 7 && day == 1) ? "0900" : "2359"] }
        end
      ]
    )
    look("Lars Ekeli")
    find("label", text: "Across a run").click
    fill_in "Meetings", with: "4"
    expect(page).to have_css("tr.chosen .held", count: 3)
    expect(page).to have_css("tr.chosen .why", text: "3 · Lars Ekeli on #{(monday + 7).strftime("%-d %B")}")
    expect(page).to have_css(
      ".repairs li", text: "Lars Ekeli is busy. Nearest that works: #{(monday + 8).strftime("%A %-d %B")}, 09:00"
    )
    click_button "Make a series at 13:00, with repairs"
    within(".v-dialog") do
      fill_in "Title", with: "With repair"
      click_button "Make the series"
    end
    expect(page).to have_css "h1", text: "With repair"
    starts =
      Records::Meeting
        .joins(:series)
        .where(series: {title: "With repair"})
        .in_order
        .map { |meeting| oslo.wall(meeting.starts_at).to_s[0, 16] }
    expect(starts).to eq ["#{monday}T13:00", "#{monday + 8}T09:00", "#{monday + 14}T13:00", "#{monday + 21}T13:00"]
  end

  it "with somebody whose calendar is not known, who is shown as such and never as free" do
    busy
    Records::BusySpan.delete_all
    Records::Calendar.where(person_id: ids["Lars Ekeli"]).delete_all
    look("Lars Ekeli", "Ines Torvald")
    expect(page).to have_css(".who li", text: "no calendar known")
    expect(page).to have_css(
      ".silhouettes [role=status]", text: "Nothing against these times, but not all who must come are sure"
    )
    expect(page).to have_css(".fit", text: "Lars Ekeli unknown")
    fill_in "Add a guest by name", with: "Guest from the yard"
    type(:enter)
    expect(page).to have_css(".who li", text: "Guest from the yard")
    expect(page).to have_css(".fit", text: "Guest from the yard")
    first(".fit").find("button", text: "Everybody").click
    expect(page).to have_css(".fit .people li", text: /Guest from the yard.*no calendar known/m)
    expect(page).to have_no_content "Private matter"
  end

  it "in a place that is taken: whoever comes second is told, and offered what is free" do
    busy
    room, shed = %w[Chart\ room Boat\ shed].map do |name|
      key.tap do |id|
        use(UseCases::Places, ids["Marit Hauge"]).add(id: id, name: name, seats: 10, time_zone: "Europe/Oslo")
      end
    end
    series(ids["Marit Hauge"], {}, title: "First come", start: "#{monday}T09:00", rule: nil, place_id: room)
    sign_in_as("Marit Hauge")
    visit "/series/new"
    fill_in "Title", with: "Second"
    fill_in "First date", with: monday
    fill_in "Starts at", with: "09:30"
    choose_from "How often", "Once"
    choose_from "Room or equipment", "Chart room, 10 seats"
    click_button "Make the series"
    expect(page).to have_content "Chart room is held by “First come” on #{monday.strftime("%A %-d %B %Y")}"
    click_button "Take Boat shed instead"
    click_button "Make the series"
    expect(page).to have_css "h1", text: "Second"
    expect(Records::PlaceBooking.pluck(:place_id)).to contain_exactly(room, shed)
  end

  it "reads a calendar from an address while one looks, and shows what went wrong" do
    sign_in_as("Marit Hauge")
    visit "/people/#{ids["Marit Hauge"]}"
    click_button "Add a calendar"
    within(".v-dialog") do
      find("label", text: "An address that is read again and again").click
      fill_in "Address", with: "http://127.0.0.1:9/marit.ics"
      click_button "Add"
    end
    expect(page).to have_content "lies in a network that is not read from"
    click_button "Add a calendar"
    within(".v-dialog") do
      find("input[type=file]", visible: :all).attach_file(
        File.expand_path("../reference/ics_import/large-rules-300.ics", __dir__)
      )
      click_button "Add"
    end
    expect(page).to have_content "300 events", wait: 20 # the worker shares two cores with the browser
    expect_accessible
  end

  it "again, when a coming meeting clashes: the Desk says so, and one press moves it" do
    busy("Lars Ekeli" => [[monday + 7, "0930", "1030"]])
    series(
      ids["Marit Hauge"], {required: ids["Lars Ekeli"]}, title: "Round", start: "#{monday}T09:30",
      rule: "FREQ=WEEKLY;COUNT=3"
    )
    sign_in_as("Marit Hauge")
    expect(page).to have_content "1 coming meeting clashes"
    within("section", text: "Waiting for you") { click_link "Round" }
    click_button "Sheets"
    expect_accessible
    find("button", text: "Move to").click
    expect(page).to have_content "Nobody is told until you send the invitation again."
    expect(page).to have_content "Yes: nobody who must come is busy"
  end
end
