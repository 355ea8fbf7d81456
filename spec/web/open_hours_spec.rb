require_relative "../web_helper"

RSpec.describe "Hours others may book" do
  let!(:marit) { person("Marit Hauge", admin: true) }
  let!(:wen) { person("Wen Halloran", zone: "America/Halifax") }
  let(:monday) { today + 7 + (8 - (today + 7).cwday) % 7 }
  let(:oslo) { Core::Zone["Europe/Oslo"] }

  def open_hours(**rest)
    id = key
    use(UseCases::OpenHours, marit).create(
      id: id, title: "Buoy clinic", time_zone: "Europe/Oslo", lengths: [30], step_min: 30, notice_min: 60,
      hosts: [
        {person_id: marit, week: {"mo" => [%w[14:00 17:00]]}}, {person_id: wen, week: {"mo" => [%w[09:00 11:00]]}}
      ],
      **rest
    )
    use(UseCases::Hosting, wen).agree(id: Records::OpenHoursHost.find_by!(person_id: wen, open_hours_id: id).id)
    Records::OpenHours.find(id)
  end

  def day_button = "#{Core::Words.day(monday)}, "

  # The month of the Monday, by its arrow where it is not this one.
  def to_month
    select "Oslo time", from: "Times in"
    title = monday.strftime("%B %Y")
    click_button "The next month" unless page.has_css?("h2", text: title, wait: 2)
    expect(page).to have_css "h2", text: title
  end

  def press_day = find("button[aria-label^='#{day_button}']").click

  it "are set up, booked with two hosts in two zones, moved and given back" do
    sign_in_as "Marit Hauge"
    visit "/common-time"
    click_link "Open hours"
    expect(page).to have_content "Let others find their own time"
    click_link "New open hours"
    click_button "Save"
    expect(page).to have_content "Give it a title."
    fill_in "Title", with: "Buoy clinic"
    choose_from "Add a host", "Wen Halloran"
    click_button "In hours of their own", match: :first
    expect(page).to have_content "Monday"
    click_button "Take the working hours instead"
    expect(page).to have_no_button "Earlier in turn: Wen Halloran"
    choose_from "A time is with", "Any one of them, in turn"
    click_button "Earlier in turn: Wen Halloran"
    choose_from "A time is with", "All hosts together"
    click_button "Add a question"
    fill_in "Question 1", with: "Which buoy?"
    check "Must be answered", allow_label_click: true
    choose_from "Shortest notice", "an hour"
    fill_in "Most a day", with: "0"
    click_button "Save"
    expect(find(".v-input", text: "Most a day")).to have_content "This must be from 1 to 100."
    fill_in "Most a day", with: "4"
    fill_in "Shown after booking, such as how to find you (optional)", with: "Second door on the quay"
    check "Listed on the public page of each host", allow_label_click: true
    expect_accessible
    click_button "Save"
    expect(page).to have_content "Saved. Visitors see it so from now on."
    expect(page).to have_content "Wen Halloran has not agreed to be a host yet: nothing is offered until then."
    expect(page).to have_content "Wen Halloran is asked, and has not agreed yet"
    open = Records::OpenHours.last
    UseCases::Hosting.new(by: wen).agree(id: Records::OpenHoursHost.find_by!(person_id: wen).id)
    page.refresh
    expect(page).to have_content "No calendar of Wen Halloran and Marit Hauge is known here"
    expect_accessible

    page.current_window.resize_to(390, 800)
    visit Loading::OpenHoursLink.path(open)
    expect(page).to have_content "WITH WEN HALLORAN AND MARIT HAUGE"
    to_month
    press_day
    click_button "14:00" # 09:00 in Halifax
    fill_in "Your name", with: "Odd Dahl"
    fill_in "Your mail address", with: "odd@port.example"
    expect_accessible
    expect(page.evaluate_script("document.documentElement.scrollWidth")).to be <= 390
    click_button "Book it"
    expect(page).to have_content "Please answer this."
    fill_in "Which buoy?", with: "Number 7"
    click_button "Book it"
    expect(page).to have_css "h1", text: "Booked"
    expect(page).to have_content "Second door on the quay"
    mail = within_s(15) { Records::Mail.find_by(recipient: "odd@port.example", state: %w[sent delivered]) }
    text = UseCases::Invitations.new.compose(mail)[:text]
    expect(text).to include "You have booked “Buoy clinic” with Marit Hauge and Wen Halloran."
    visit text[%r{/booking/\S+}]
    select "Oslo time", from: "Times in"
    expect(page).to have_content "14:00–14:30 Oslo time"
    click_button "Move it"
    expect(page).to have_css "h2", text: monday.strftime("%B %Y")
    press_day
    click_button "15:00"
    click_button "Move it to #{Core::Words.day(monday)}, 15:00 Oslo time"
    expect(page).to have_content "It is moved."
    expect(page).to have_content "15:00–15:30 Oslo time"
    expect_accessible
    page.current_window.resize_to(1280, 800)
    visit "/open-hours/#{open.id}"
    expect(page).to have_content "Which buoy? Number 7"
    click_link "Odd Dahl"
    expect(page).to have_content "Buoy clinic: Odd Dahl"
    visit text[%r{/booking/\S+}]
    click_button "I cannot: give it back"
    click_button "Keep it"
    click_button "I cannot: give it back"
    within("[aria-label='Give it back']") { click_button "Give it back" }
    expect(page).to have_content "You have given it back"
    expect(page).to have_link "Take another time"
    expect(Records::Meeting.pluck(:state)).to eq ["called_off"]
  end

  it "have colleagues as hosts once they agree; they choose which of their calendars count, and leave" do
    use(UseCases::Calendars, wen).add(id: key, name: "Choir", kind: "by_hand", person_id: wen)
    use(UseCases::OpenHours, marit).create(
      id: key, title: "Buoy clinic", time_zone: "Europe/Oslo", lengths: [30], mode: "turns",
      hosts: [{person_id: marit}, {person_id: wen}]
    )
    use(UseCases::OpenHours, marit).create(
      id: key, title: "Rope clinic", time_zone: "Europe/Oslo", lengths: [30], mode: "turns",
      hosts: [{person_id: marit}, {person_id: wen}]
    )
    mail = within_s(15) { Records::Mail.find_by(recipient: "wen@skerrybuoy.example", state: %w[sent delivered]) }
    expect(Mail.new(mail.source).subject).to start_with "Asked to be a host"
    sign_in_as "Wen Halloran"
    expect(page).to have_content "Marit Hauge asks you to be a host of these open hours", count: 2
    click_link "Buoy clinic"
    row = find("li", text: "Buoy clinic")
    row.click_button "Agree"
    expect(page).to have_content "You are a host of Buoy clinic now."
    expect_accessible
    choose_from "Your calendars that do not count for Buoy clinic", "Choir"
    expect(page).to have_content "Saved. It counts from now on."
    eventually { Records::OpenHoursHost.agreed.find_by(person_id: wen).calendars_out.size == 1 }
    type :escape
    find("li", text: "Rope clinic").click_button "No"
    expect(page).to have_content "Marit Hauge hears that you do not want to."
    expect(page).to have_no_content "Rope clinic"
    click_button "Leave Buoy clinic"
    expect(page).to have_content "You are no longer a host of Buoy clinic."
    expect(page).to have_content "Let others find their own time"
  end

  it "offer the nearest when somebody was quicker, and can be worked by keyboard" do
    open = open_hours(mode: "turns")
    path = Loading::OpenHoursLink.path(open)
    visit path
    to_month
    # Arrow keys within the month, Enter takes the day.
    find("button[aria-label^='#{day_button}']").send_keys(:left)
    type :right
    type :enter
    expect(page).to have_css "button[aria-label^='#{day_button}'].on"
    expect(bytes_to_draw).to be_between(20_000, 120_000)
    click_button "16:30"
    fill_in "Your name", with: "Gunnar"
    fill_in "Your mail address", with: "gunnar@port.example"
    UseCases::Bookings.new.book(
      Loading::OpenHoursLink.open(*path.split("/").last(2)), id: key, length_min: 30, name: "Odd",
      email: "odd@port.example", time_zone: "Europe/Oslo",
      starts_at: oslo.instant(Core::WallTime.at(monday, (16 * 60 + 30) * 60))
    )
    click_button "Book it"
    expect(page).to have_content "This time has just been taken. These are the nearest."
    within("[role=alert]") { click_button "#{Core::Words.day(monday)}, 16:00" }
    click_button "Book it"
    expect(page).to have_css "h1", text: "Booked"
  end

  it "say so when a month cannot be read, and read it again" do
    visit Loading::OpenHoursLink.path(open_hours)
    to_month
    page.driver.browser.network.emulate_network_conditions(offline: true)
    click_button "The next month"
    expect(page).to have_content "The times could not be read."
    expect(page).to have_no_content "Nothing is free this month"
    page.driver.browser.network.emulate_network_conditions
    click_button "Try again"
    expect(page).to have_no_content "The times could not be read."
    expect(page).to have_css "button[aria-label^='#{Core::Words.day(Date.new(monday.year, monday.month, 1) >> 1)}']"
  end

  it "let the visitor choose the host, and prove the address by mail" do
    open = open_hours(mode: "chosen", proof: true, lengths: [30, 60], only_from: ["port.example"])
    visit Loading::OpenHoursLink.path(open)
    to_month
    find("label", text: "Wen Halloran").click
    find("label", text: "1 h").click
    press_day
    expect(page).to have_no_button "16:00" # Wen is there until 16:00 in Oslo
    click_button "15:00"
    fill_in "Your name", with: "Odd Dahl"
    fill_in "Your mail address", with: "odd@else.example"
    click_button "Book it, and confirm by mail"
    expect(page).to have_content "Times cannot be booked here with this address."
    fill_in "Your mail address", with: "odd@port.example"
    click_button "Book it, and confirm by mail"
    expect(page).to have_css "h1", text: "Please confirm it by mail"
    mail = within_s(15) { Records::Mail.find_by(recipient: "odd@port.example", state: %w[sent delivered]) }
    visit Mail.read_from_string(mail.source).text_part.decoded[%r{/booking/\S+}]
    click_button "Confirm it"
    expect(page).to have_content "It is booked."
    expect(Records::Booking.pluck(:state, :host_ids)).to eq [["booked", [wen]]]
  end

  it "are edited, copied, given another link, listed for everybody and removed, with a way back" do
    open = open_hours(listed: true)
    sign_in_as "Marit Hauge"
    visit "/open-hours"
    expect(page).to have_button "Copy the link of Buoy clinic"
    click_link "your public page"
    expect(page).to have_css "h1", text: "A time with Marit Hauge"
    click_link "Buoy clinic"
    expect(page).to have_css "h1", text: "Buoy clinic"
    visit "/open-hours/#{open.id}"
    click_link "Edit"
    expect(page).to have_field "Title", with: "Buoy clinic"
    fill_in "Title", with: "Clinic"
    check "Paused: nothing can be booked", allow_label_click: true
    click_button "Save"
    expect(page).to have_css "h1", text: "Clinic"
    expect(page).to have_content "Paused: nothing can be booked."
    before = Loading::OpenHoursLink.path(open)
    click_button "Take another link"
    expect(page).to have_content "the one before is not valid any more"
    visit before
    expect(page).to have_content "This link is no longer valid"
    visit "/open-hours/#{open.id}"
    click_button "Remove these open hours"
    expect(page).to have_content "Clinic removed. What is booked stays."
    click_button "Undo"
    expect(page).to have_link "Clinic"
    visit "/open-hours/#{open.id}"
    click_button "Remove these open hours"
    visit "/open-hours"
    expect(page).to have_content "Let others find their own time"
    expect(open.reload.removed_at).not_to be_nil
  end

  it "give a row of five talks, of which each on a list picks one" do
    talks = series(marit, {}, start: "#{monday}T13:00", rule: nil, title: "Interviews")
    meeting = meeting_ids(talks).first
    Records::Meeting.where(id: meeting).update_all("ends_at = starts_at + interval 3 hour")
    sign_in_as "Marit Hauge"
    visit "/meetings/#{meeting}"
    click_button "Let people pick their times"
    within(".v-dialog") do
      click_button "Add a break"
      fill_in "Break from", with: "14:00"
      fill_in "to", with: "15:00", exact: true
      %w[Odd Gunnar Rory Sunniva Petra].each_with_index do |name, i|
        click_button "Add a person" if i.positive?
        within("fieldset[aria-label='Person #{i + 1}']") do
          fill_in "Name", with: name
          fill_in "Mail address", with: "#{name.downcase}@port.example"
        end
      end
    end
    fill_in "Minutes each", with: "200"
    keep
    expect(page).to have_css ".v-dialog .v-input", text: "No time of that length fits into the meeting."
    fill_in "Minutes each", with: "20"
    fill_in "Minutes between", with: "-1"
    keep
    expect(page).to have_css ".v-dialog .v-input", text: "This must be from 0"
    fill_in "Minutes between", with: "5"
    keep
    expect(page).to have_content "Not picked yet: Odd, Gunnar, Rory, Sunniva and Petra."
    click_button "Ask 5 people to pick"
    expect(page).to have_button "Ask once more"
    link = ->(name) do
      mail = within_s(15) { Records::Mail.find_by(recipient: "#{name}@port.example", state: %w[sent delivered]) }
      Mail.read_from_string(mail.source).text_part.decoded[%r{/pick/\S+}]
    end
    visit link["odd"]
    page.current_window.resize_to(390, 800)
    select "Oslo time", from: "Times in"
    click_button "13:25"
    expect(page).to have_content "13:25 is yours"
    click_button "15:00"
    expect(page).to have_content "15:00 is yours"
    expect_accessible
    visit link["gunnar"]
    select "Oslo time", from: "Times in"
    expect(page).to have_button "15:00, taken", disabled: true
    click_button "13:00"
    expect(page).to have_content "13:00 is yours"
    page.current_window.resize_to(1280, 800)
    visit "/meetings/#{meeting}"
    expect(page).to have_css ".one-by-one li", text: "13:00 Gunnar"
    expect(page).to have_content "Not picked yet: Rory, Sunniva and Petra."
    click_button "Edit what they pick from"
    within(".v-dialog") { fill_in "Minutes each", with: "" }
    within(".v-dialog") { fill_in "Minutes each", with: "25" }
    keep
    expect(page).to have_content "Not picked yet: Odd, Gunnar, Rory, Sunniva and Petra."
    expect(within_s(15) { Records::Mail.where("subject like 'Please pick another time%'").count == 2 }).to be true
  end
end
