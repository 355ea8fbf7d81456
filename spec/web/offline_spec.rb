require_relative "../web_helper"

# A sheet without a connection: it opens again, takes what is written, and sends it when there is one; nothing of it
# stays when one signs out. And a new version of the program is offered.
RSpec.describe "Without a connection", :web do
  around do |example|
    ENV["LEFT_OVER_OFFLINE"] = "on"
    example.run
  ensure
    ENV.delete("LEFT_OVER_OFFLINE")
    Outage.on = false
  end

  let(:marit) { person("Marit Hauge") }
  let(:wen) { person("Wen Halloran") }
  let(:week) { series(marit, {required: wen}) }
  let(:meeting) { meeting_ids(week).first }

  # The program lies in the browser, and the sheet too.
  def kept
    page.evaluate_async_script("navigator.serviceWorker.ready.then(() => arguments[0](true))")
    eventually { sheets_kept == 1 }
  end

  def sheets_kept
    page.evaluate_async_script(<<~JS)
      const done = arguments[0]
      const open = indexedDB.open('left-over')
      open.onsuccess = () => {
        const kept = open.result
        if (!kept.objectStoreNames.contains('sheets')) return kept.close(), done(0)
        const count = kept.transaction('sheets').objectStore('sheets').count()
        count.onsuccess = () => (kept.close(), done(count.result))
      }
    JS
  end

  def write(text)
    find(".entry textarea").send_keys(text, :enter)
    expect(page).to have_css ".line", text: text
  end

  def lines = Records::Line.standing.where(meeting_id: meeting).in_order.pluck(:text)

  before do
    state(meeting, marit, "in_session")
    sign_in_as("Marit Hauge")
    visit "/meetings/#{meeting}"
    # The browser fetches all of the program beside it.
    expect(page).to have_css ".entry textarea", wait: 40
    write "Before"
    expect(page).to have_content("all saved", wait: 40)
    kept
  end

  it "the sheet opens after a reload, is written on, and all of it arrives once there is one" do
    Outage.on = true
    write "While it is away"
    visit "/meetings/#{meeting}"
    expect(page).to have_content "No connection. This is the sheet as you read it last"
    expect(page).to have_css ".line", text: "While it is away"
    expect(page).to have_no_button "Close the meeting"
    expect(page).to have_no_field "Add a topic"
    write "After the reload"
    select "here", from: "Wen Halloran is"
    expect(page).to have_content "3 unsent"
    expect(lines).to eq ["Before"]
    Outage.on = false
    expect(page).to have_content("all saved", wait: 30)
    expect(page).to have_no_content "No connection"
    expect(lines).to eq ["Before", "While it is away", "After the reload"]
    expect(Records::Attendance.where(person_id: wen).pluck(:state)).to eq ["present"]
    expect(page).to have_button "Close the meeting"
  end

  it "a sheet that was not read says so, and nothing is kept of who signs out" do
    other = meeting_ids(week)[1]
    Outage.on = true
    visit "/meetings/#{other}"
    expect(page).to have_css "[role=alert]", text: /not|connection/i
    Outage.on = false
    visit "/meetings/#{meeting}"
    expect(page).to have_content "all saved"
    find(".me").click
    find(".v-list-item", text: "Sign out").click
    expect(page).to have_field "Mail address"
    expect(page.evaluate_script("localStorage.getItem('left-over:session')")).to be_nil
    eventually { sheets_kept.zero? }
  end

  it "a new version is offered, and taken when one says so" do
    worker = File.join(Api::FrontEnd::DIST, "sw.js")
    before = File.read(worker)
    visit "/meetings/#{meeting}"
    expect(page).to have_content "all saved"
    File.write(worker, "#{before}\n// another version\n")
    page.evaluate_async_script(
      "navigator.serviceWorker.getRegistration().then(one => one.update()).then(() => arguments[0](true))"
    )
    expect(page).to have_content "Left Over has been updated."
    click_button "Later"
    expect(page).to have_no_content "Left Over has been updated."
    visit "/meetings/#{meeting}"
    page.execute_script("window.before = true")
    click_button "Load the new version"
    eventually { page.evaluate_script("window.before") != true }
    expect(page).to have_css ".line", text: "Before"
    expect(page).to have_no_content "Left Over has been updated."
  ensure
    File.write(worker, before)
  end
end
